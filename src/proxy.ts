import { NextResponse, type NextRequest } from 'next/server';

const LOCAL = /^(127\.0\.0\.1|localhost)(:\d+)?$/;

function refused(detail: string): NextResponse {
  return NextResponse.json(
    { type: 'urn:veridon:problem:refused', title: 'Refused', status: 403, detail },
    { status: 403, headers: { 'Content-Type': 'application/problem+json' } },
  );
}

/** True where the request comes from our own pages, or from no page at all. */
function sameOrigin(request: NextRequest, host: string): boolean {
  const origin = request.headers.get('origin');
  if (origin !== null) return origin === `http://${host}`;
  const site = request.headers.get('sec-fetch-site');
  return site === null || site === 'same-origin' || site === 'none';
}

/**
 * Guards the door: only this machine's own names for itself, so that no page from elsewhere reaches the radios by way
 * of the browser (DNS rebinding, forged requests); and a Content-Security-Policy with a nonce for every page.
 */
export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get('host') ?? '';
  if (!LOCAL.test(host))
    return refused('Veridon answers on this machine only. Open it as 127.0.0.1 or localhost.');
  const changes = request.method !== 'GET' && request.method !== 'HEAD';
  if (changes && !sameOrigin(request, host)) return refused('This request came from another site.');

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
  response.headers.set('X-Content-Type-Options', 'nosniff');
  response.headers.set('Referrer-Policy', 'no-referrer');
  response.headers.set('X-Frame-Options', 'DENY');
  return response;
}

export const config = { matcher: ['/((?!_next/static|_next/image|icon.svg).*)'] };
