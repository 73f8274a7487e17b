import { connect, type Socket } from 'node:net';
import { PLAN, type World } from '../e2e/world';
import { ask, post, Watch, type Report } from './figures';

/** Bodies that never end, bodies that trickle, and answers that nobody reads: they keep their connections, and nobody else's change. */

interface Line {
  socket: Socket;
  heard: () => string;
  closed: Promise<void>;
}

function open(world: World, text: string, reads = true): Line {
  const { port } = new URL(world.url);
  let heard = '';
  const socket = connect(Number(port), '127.0.0.1', () => socket.write(text));
  if (reads) socket.on('data', (part) => (heard += String(part)));
  socket.on('error', () => {});
  return { socket, heard: () => heard, closed: new Promise((done) => socket.once('close', () => done())) };
}

const begun = (world: World, length: number) =>
  `POST /api/plans/${PLAN}/edits HTTP/1.1\r\nHost: ${new URL(world.url).host}\r\nContent-Type: application/json\r\nContent-Length: ${length}\r\n\r\n{"base":`;

export async function neverEnd(world: World, { lines }: { lines: number }): Promise<Report> {
  const watch = new Watch();
  await ask(`${world.url}/api/plans/${PLAN}/recover`, post(undefined));
  const edit = async (what: string) => {
    const { revision } = (await ask(`${world.url}/api/plans/${PLAN}`)).body as { revision: number };
    const answer = await ask(
      `${world.url}/api/plans/${PLAN}/edits`,
      post({ base: revision, edit: { name: 'describe', set: { name: what } } }),
    );
    watch.take(`POST edits while ${what}`, answer);
    if (answer.status !== 200) watch.note(`An edit while ${what} was answered with ${answer.status}`);
  };
  const silent = Array.from({ length: lines }, () => open(world, begun(world, 1000)));
  for (let n = 0; n < 5; n++) await edit('bodies never end');

  const trickling = Array.from({ length: lines }, () => open(world, begun(world, 100_000)));
  const trickle = setInterval(() => trickling.forEach(({ socket }) => socket.write('x')), 300);
  for (let n = 0; n < 5; n++) await edit('bodies trickle');

  const asking = `GET /api/plans/${PLAN} HTTP/1.1\r\nHost: ${new URL(world.url).host}\r\n\r\n`;
  const unread = Array.from({ length: lines }, () => open(world, asking.repeat(20), false));
  for (let n = 0; n < 5; n++) await edit('answers are not read');

  // Each line that said nothing more is told so, and let go.
  await Promise.all(silent.map(({ closed }) => closed));
  for (const { heard } of silent)
    if (!heard().startsWith('HTTP/1.1 408 ')) watch.note(`A silent line heard ${heard().slice(0, 60)}`);
  clearInterval(trickle);
  for (const { socket } of [...trickling, ...unread]) socket.destroy();
  await Promise.all([...trickling, ...unread].map(({ closed }) => closed));

  // What all that wait may have together is two hundred megabytes: fifty of the longest.
  const large = Array.from({ length: 50 }, () => open(world, begun(world, 4_000_000)));
  // What people type is small, and has room of its own.
  await edit('fifty long bodies wait');
  let refused: Line | undefined;
  for (let tries = 0; !refused && tries < 60; tries++) {
    const one = open(world, begun(world, 4_000_000));
    await Promise.race([one.closed, new Promise((goOn) => setTimeout(goOn, 200))]);
    if (one.heard().startsWith('HTTP/1.1 429 ')) refused = one;
    else large.push(one);
  }
  if (!refused) watch.note('More than 200 MB of bodies were taken in at once');
  for (const { socket } of large) socket.destroy();
  await Promise.all(large.map(({ closed }) => closed));
  await edit('all of them have gone');
  return {
    attack: 'bodies that never end',
    figures: { ...watch.figures(), 'silent, trickling and unread lines': 3 * lines },
    broken: watch.broken,
  };
}
