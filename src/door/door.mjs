// @ts-check
/**
 * The door that every request comes through before anything else sees it: Veridon's own, and the simulated bench's. Plain
 * JavaScript, since it stands in front of what is built and is loaded by Node as it is.
 */

/** Longest body that is let in, bytes. */
export const LONGEST_BODY = 4_000_000;
/** Longest address, characters. */
const LONGEST_PATH = 4000;

/**
 * @typedef {{ method: string, url: string, headers: Record<string, string | string[] | undefined> }} Knock
 * @typedef {{ status: number, kind: string, title: string, detail: string, allow?: string }} Refusal
 */

/** @param {Knock} knock @param {string} name */
function header({ headers }, name) {
  const value = headers[name];
  return typeof value === 'string' ? value : undefined;
}

/** Only this machine's own names for itself, so that no foreign name can be made to lead here (DNS rebinding). @param {string} host */
export function isLocalHost(host) {
  const named = /^(?:127\.0\.0\.1|localhost)(?::(\d{1,5}))?$/.exec(host);
  return named !== null && Number(named[1] ?? 0) <= 65_535;
}

/**
 * True where the request comes from our own pages, or from no page at all. A page of another port of this machine is
 * another site like any other.
 * @param {Knock} knock
 */
export function isOwnOrigin(knock) {
  const origin = header(knock, 'origin');
  if (origin !== undefined) return origin === `http://${header(knock, 'host')}`;
  const site = header(knock, 'sec-fetch-site');
  return site === undefined || site === 'same-origin' || site === 'none';
}

/**
 * True where a page of another site asks, or leads somebody here: what the interface answers may cost much, and is no page to be led to. Browsers say
 * it of themselves (Fetch Metadata), programs say nothing.
 *
 * @param {Knock} knock
 */
const isOfOtherSite = (knock) => /^(cross|same)-site$/.test(header(knock, 'sec-fetch-site') ?? '');

/** @param {string} path */
function isReadable(path) {
  try {
    return !decodeURIComponent(path).includes('\0');
  } catch {
    return false;
  }
}

/** What is wrong with the body that is announced; undefined where nothing is. @param {Knock} knock @returns {Refusal | undefined} */
function bodyRefusal(knock) {
  if (header(knock, 'transfer-encoding') !== undefined)
    return {
      status: 411,
      kind: 'length-wanted',
      title: 'How long is it?',
      detail: 'Say how long the body is (Content-Length). Nothing was changed.',
    };
  const length = Number(header(knock, 'content-length') ?? 0);
  return length > LONGEST_BODY
    ? {
        status: 413,
        kind: 'too-large',
        title: 'Too much at once',
        detail: `A body may have ${LONGEST_BODY / 1_000_000} MB. Nothing was changed; send it in parts.`,
      }
    : undefined;
}

/**
 * Why a request is not let in; undefined where it is. `methods` says which methods there are at a path.
 *
 * @param {Knock} knock
 * @param {(path: string) => readonly string[]} methods
 * @returns {Refusal | undefined}
 */
export function refusalOf(knock, methods) {
  const { method, url } = knock;
  if (!isLocalHost(header(knock, 'host') ?? ''))
    return {
      status: 403,
      kind: 'refused',
      title: 'Refused',
      detail: 'Veridon answers on this machine only. Open it as 127.0.0.1 or localhost.',
    };
  if (url.length > LONGEST_PATH)
    return {
      status: 414,
      kind: 'address-too-long',
      title: 'Too long',
      detail: 'No address here is so long.',
    };
  const path = url.split('?', 1)[0] ?? '';
  if (!path.startsWith('/') || path.startsWith('//') || path.includes('\\') || !isReadable(path))
    return {
      status: 400,
      kind: 'bad-address',
      title: 'Not an address',
      detail: 'The address cannot be read: a percent sign stands before two hexadecimal figures (RFC 3986).',
    };
  const taken = methods(path);
  if (!taken.includes(method))
    return {
      status: 405,
      kind: 'no-such-method',
      title: 'Not in this way',
      detail: `This takes ${taken.join(', ')}, not ${method}.`,
      allow: taken.join(', '),
    };
  const changes = method !== 'GET' && method !== 'HEAD';
  if (changes ? !isOwnOrigin(knock) : path.startsWith('/api/') && isOfOtherSite(knock))
    return {
      status: 403,
      kind: 'refused',
      title: 'Refused',
      detail: 'This request came from another site.',
    };
  return bodyRefusal(knock);
}

/** What pages take, and what the interface below /api may be asked with; which of them an operation takes, it says itself. @param {string} path */
export const methodsOfVeridon = (path) =>
  path.startsWith('/api/') ? ['GET', 'HEAD', 'POST', 'DELETE', 'PUT', 'PATCH', 'OPTIONS'] : ['GET', 'HEAD'];

/**
 * Takes out of the headers what only the framework's own pages may say, where it does not make sense: a header that
 * cannot be read would be a fault of ours by the time somebody reads it.
 *
 * @param {Record<string, string | string[] | undefined>} headers changed in place
 */
export function cleanHeaders(headers) {
  for (const name of Object.keys(headers)) {
    const value = headers[name];
    if (/^(next-action|x-middleware-|x-nextjs-|x-invoke-|x-matched-path|x-now-|x-vercel-)/.test(name))
      delete headers[name];
    else if (name === 'next-router-state-tree' && !isJson(value)) delete headers[name];
    else if (/^(next-|rsc$)/.test(name) && (typeof value !== 'string' || !isReadable(value)))
      delete headers[name];
  }
}

/** @param {string | string[] | undefined} value */
function isJson(value) {
  try {
    return typeof value === 'string' && Array.isArray(JSON.parse(decodeURIComponent(value)));
  } catch {
    return false;
  }
}

/** What every answer says of itself: no guessing of types, no frames, no word of where one comes from. */
export const ANSWER_HEADERS = {
  // Not even that Veridon runs is told to the pages of others.
  'Cross-Origin-Resource-Policy': 'same-origin',
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'no-referrer',
  'X-Frame-Options': 'DENY',
};

/** A refusal as it goes over the line: its body, a problem document (RFC 9457), and its headers. @param {Refusal} refusal */
function problemOf({ status, kind, title, detail, allow }) {
  const body = JSON.stringify({ type: `urn:veridon:problem:${kind}`, title, status, detail });
  /** @type {Record<string, string | number>} */
  const headers = {
    'Content-Type': 'application/problem+json',
    'Content-Length': Buffer.byteLength(body),
    'Content-Security-Policy': "default-src 'none'; frame-ancestors 'none'",
    'Cache-Control': 'no-store',
    Connection: 'close',
    ...ANSWER_HEADERS,
    ...(allow !== undefined && { Allow: allow }),
  };
  return { body, headers };
}

/** How long, and for how many bytes, somebody is let finish what is not wanted any more, ms. */
const LINGER_MS = 2000;
const LINGER_BYTES = 32_000_000;

/** How long somebody may leave an answer unread before the connection goes, ms. */
const UNREAD_MS = 30_000;

/**
 * Ends an answer. Where its request is still under way what comes of it is thrown away for a while before the connection goes
 * (RFC 9112, 9.6): a connection that is closed under whoever still sends takes the answer with it.
 *
 * @param {import('node:http').ServerResponse} response with its head and its length sent
 * @param {string | Uint8Array | undefined} body
 */
export function endAnswer(response, body) {
  const { req: request } = response;
  if (request.complete || request.destroyed) {
    // Node ends a connection on which nothing goes on for so long; the next request on it begins without that limit.
    response.socket?.setTimeout(UNREAD_MS);
    return void response.end(body);
  }
  if (body) response.write(body);
  let left = LINGER_BYTES;
  const end = () => {
    clearTimeout(timer);
    response.end();
    // Half closed it would stay until the other side lets go of it.
    request.socket.destroySoon();
  };
  const timer = setTimeout(end, LINGER_MS);
  request.on('data', (/** @type {Buffer} */ part) => {
    left -= part.length;
    if (left < 0) end();
  });
  request.once('end', end);
  request.once('close', end);
  request.resume();
}

/**
 * Sends a refusal and lets the connection go.
 *
 * @param {import('node:http').ServerResponse} response
 * @param {Refusal} refusal
 */
export function refuse(response, refusal) {
  const { body, headers } = problemOf(refusal);
  response.writeHead(refusal.status, headers);
  endAnswer(response, body);
}

/**
 * Answers what is no request that Node can read, or never became one, where there is still somebody to hear it.
 *
 * @param {NodeJS.ErrnoException} error
 * @param {import('node:stream').Duplex} socket
 */
export function refuseUnreadable(error, socket) {
  if (!socket.writable || error.code === 'ECONNRESET') return void socket.destroy();
  /** @type {Refusal} */
  const refusal =
    error.code === 'HPE_HEADER_OVERFLOW'
      ? {
          status: 431,
          kind: 'address-too-long',
          title: 'Too long',
          detail: 'No address and no headers here are so long.',
        }
      : error.code === 'ERR_HTTP_REQUEST_TIMEOUT'
        ? {
            status: 408,
            kind: 'too-slow',
            title: 'Too slow',
            detail: 'The request did not come in time. Nothing was changed; send it again.',
          }
        : {
            status: 400,
            kind: 'unreadable',
            title: 'Not a request',
            detail: 'What came is no HTTP request. Nothing was changed.',
          };
  const { body, headers } = problemOf(refusal);
  const lines = Object.entries(headers).map(([name, value]) => `${name}: ${value}`);
  socket.end([`HTTP/1.1 ${refusal.status} ${refusal.title}`, ...lines, '', body].join('\r\n'));
}
