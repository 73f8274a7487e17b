import { NextResponse, type NextRequest } from 'next/server';
import { ANSWER_HEADERS, methodsOfVeridon, refusalOf } from './door/door.mjs';

/**
 * A Content-Security-Policy with a nonce for every page. The door has looked at the request before; under `npm run dev`, where
 * no door stands before the framework, its checks are made here.
 */
export function proxy(request: NextRequest): NextResponse {
  const { pathname, search } = request.nextUrl;
  const headersOf = Object.fromEntries(request.headers);
  const refusal = refusalOf(
    { method: request.method, url: pathname + search, headers: headersOf },
    methodsOfVeridon,
  );
  if (refusal) {
    const { status, kind, title, detail } = refusal;
    return NextResponse.json(
      { type: `urn:veridon:problem:${kind}`, title, status, detail },
      { status, headers: { 'Content-Type': 'application/problem+json' } },
    );
  }

  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const development = process.env.NODE_ENV === 'development';
  const policy = [
    `default-src 'self'`,
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${development ? " 'unsafe-eval'" : ''}`,
    `style-src 'self' 'unsafe-inline'`,
    `img-src 'self' data:`,
    `font-src 'self'`,
    `connect-src 'self'${development ? ' ws:' : ''}`,
    `object-src 'none'`,
    `base-uri 'none'`,
    `form-action 'self'`,
    `frame-ancestors 'none'`,
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('Content-Security-Policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy);
  for (const [name, value] of Object.entries(ANSWER_HEADERS)) response.headers.set(name, value);
  return response;
}

export const config = { matcher: ['/((?!_next/static/|icon\\.svg$).*)'] };
