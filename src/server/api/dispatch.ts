import { notFound, Problem } from '../problem';
import { api, type Operation } from '../../api';
import { answeredOnce } from '../once';
import { withoutSecrets } from '../secrets';
import { handlers, KEEP_RECEIPTS } from './handlers';
import { answer, problemAnswer, type Handler, type Incoming, type Outgoing } from './route';

/** An operation with its handler, found by its path. */
interface Entry {
  path: RegExp;
  operation: Operation;
  run: Run;
}

type Run = Handler<unknown, unknown, unknown, unknown>;

/** A handler whose answers are kept by the key of the change, so that a change that is sent again is not done again. */
const keepingAnswers =
  (name: string, { secrets }: Operation, run: Run): Run =>
  (asked) => {
    const { params, query, asker } = asked;
    const body = withoutSecrets(asked.body, secrets);
    return answeredOnce(asker, { operation: name, params, query, body }, async () => run(asked));
  };

const runOf = (name: keyof typeof api, operation: Operation): Run => {
  const run = handlers[name] as Run;
  return operation.changes && !KEEP_RECEIPTS.has(name) ? keepingAnswers(name, operation, run) : run;
};

const entries = Object.entries(api).map(([name, operation]): Entry => ({
  path: new RegExp(`^${operation.path.replaceAll('.', '\\.').replace(/\{(\w+)\}/g, '(?<$1>[^/]+)')}$`),
  operation: operation as Operation,
  run: runOf(name as keyof typeof api, operation as Operation),
}));

/**
 * Answers everything below /api: the operation of that path and method, or the problem that says that there is no such
 * path, or which methods it has. HEAD answers as GET does, without a body.
 */
export async function dispatch(incoming: Incoming): Promise<Outgoing> {
  const [pathname] = incoming.url.split('?', 1) as [string];
  const here = entries.flatMap((entry) => {
    const found = entry.path.exec(pathname);
    return found ? [{ ...entry, params: decoded(found.groups ?? {}) }] : [];
  });
  if (here.length === 0) return problemAnswer(notFound(`${pathname.slice(0, 100)} in this interface`));
  const method = incoming.method === 'HEAD' ? 'GET' : incoming.method;
  const wanted = here.find(({ operation }) => operation.method === method);
  if (wanted) return answer(wanted.operation, wanted.run, incoming, wanted.params);
  const methods = here.map(({ operation }) => operation.method).join(', ');
  return problemAnswer(
    new Problem(405, 'no-such-method', 'Not in this way', `${pathname} takes ${methods}, not ${method}.`),
    { Allow: methods },
  );
}

/** The parts of a path as they are meant; one that cannot be decoded stays as it is, and no id reads so. */
function decoded(parts: Record<string, string>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(parts).map(([name, part]) => {
      try {
        return [name, decodeURIComponent(part)];
      } catch {
        return [name, part];
      }
    }),
  );
}

/** What comes piece by piece, as the web has it. */
function streamOf(parts: AsyncIterable<string>): ReadableStream<Uint8Array> {
  const iterator = parts[Symbol.asyncIterator]();
  const encoder = new TextEncoder();
  return new ReadableStream({
    async pull(controller) {
      const { done, value } = await iterator.next();
      if (done) controller.close();
      else controller.enqueue(encoder.encode(value));
    },
    async cancel() {
      await iterator.return?.();
    },
  });
}

/** The same for a request of the web's own kind, as the framework hands it on. */
export async function dispatchRequest(request: Request): Promise<Response> {
  const { pathname, search } = new URL(request.url);
  const { status, headers, body } = await dispatch({
    method: request.method,
    url: pathname + search,
    header: (name) => request.headers.get(name),
    async bytes(most) {
      const parts: Uint8Array[] = [];
      let length = 0;
      for await (const part of (request.body ?? []) as unknown as AsyncIterable<Uint8Array>) {
        length += part.length;
        if (length > most) return null;
        parts.push(part);
      }
      return Buffer.concat(parts);
    },
    gone: request.signal,
  });
  const whole = typeof body === 'string' || body instanceof Uint8Array;
  return new Response(request.method === 'HEAD' ? null : whole ? (body as BodyInit) : streamOf(body), {
    status,
    headers,
  });
}
