import { createServer, type IncomingMessage } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { makeBodies } from './bodies.mjs';

/** Bodies are taken in before their changes wait: whole, or with a word of what became of them. */

/** What a server hears of bodies that a client writes as it likes. */
async function withServer(
  limits: Parameters<typeof makeBodies>[0],
  work: (
    say: (length: number, body: string) => ReturnType<typeof connect>,
    came: () => unknown[],
    begun: () => unknown[],
  ) => Promise<void>,
): Promise<void> {
  const bodies = makeBodies(limits);
  const came: unknown[] = [];
  const begun: unknown[] = [];
  const server = createServer((request: IncomingMessage, response) => {
    const body = bodies.take(request, Number(request.headers['content-length']));
    if (!body) {
      came.push('no room');
      return void response.end();
    }
    begun.push(request.url);
    void body.bytes.then((bytes) => {
      came.push(Buffer.isBuffer(bytes) ? bytes.toString() : bytes);
      body.free();
      body.free();
      response.end();
    });
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.address() as AddressInfo;
  const sockets: ReturnType<typeof connect>[] = [];
  const say = (length: number, body: string) => {
    const socket = connect(port, '127.0.0.1', () =>
      socket.write(`POST / HTTP/1.1\r\nHost: localhost\r\nContent-Length: ${length}\r\n\r\n${body}`),
    );
    socket.on('error', () => {});
    sockets.push(socket);
    return socket;
  };
  await work(
    say,
    () => came,
    () => begun,
  );
  for (const socket of sockets) socket.destroy();
  await new Promise((done) => server.close(done));
}
const seen = async (came: () => unknown[], count: number) => {
  while (came().length < count) await new Promise((goOn) => setTimeout(goOn, 5));
  return came();
};
const roomy = { most: 1_000_000, mostSmall: 1000, idleMs: 300_000 };

test('a body comes whole, in however many pieces', () =>
  withServer(roomy, async (say, came) => {
    const socket = say(6, 'ab');
    await new Promise((done) => socket.once('connect', done));
    socket.write('cd');
    socket.write('ef');
    expect(await seen(came, 1)).toEqual(['abcdef']);
  }));

test('who goes before its end is gone, and who pauses too long is too slow', () =>
  withServer({ ...roomy, idleMs: 50 }, async (say, came) => {
    say(100, 'ab');
    expect(await seen(came, 1)).toEqual(['too slow']);
    const leaving = say(100, 'ab');
    leaving.once('connect', () => setTimeout(() => leaving.destroy(), 1));
    expect(['gone', 'too slow']).toContain((await seen(came, 2))[1]);
  }));

test('large and small bodies have room of their own, which comes back', () =>
  withServer(roomy, async (say, came, begun) => {
    // Two large ones of 600 kB are more than there is room for; the second is refused, and a small one is not.
    const first = say(600_000, 'x');
    await seen(begun, 1);
    const second = say(600_000, 'x');
    expect(await seen(came, 1)).toEqual(['no room']);
    second.destroy();
    say(3, 'abc');
    expect(await seen(came, 2)).toEqual(['no room', 'abc']);
    say(1001, 'x');
    expect((await seen(came, 3))[2]).toBe('no room');
    first.destroy();
    expect((await seen(came, 4))[3]).toBe('gone');
    say(600_000, 'y'.repeat(600_000));
    expect((await seen(came, 5))[4]).toHaveLength(600_000);
  }));
