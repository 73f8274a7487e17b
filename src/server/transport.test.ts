import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bytesOf, compareImages, decodeImage, encodeImage } from '../core/image';
import type { LinkEvent } from '../core/link';
import { ternP2 } from '../core/models/tern-p2';
import { newMemory, UNITS } from '../sim/bench/units';
import { startSim } from '../sim/server';
import { runLink } from './transport';

/** Links over real sockets, to a radio of the simulated bench. */

const folder = mkdtempSync(join(tmpdir(), 'veridon-transport-'));
let sim: Awaited<ReturnType<typeof startSim>>;
beforeAll(async () => {
  sim = await startSim({ port: 0, folder, speed: 60 });
});
afterAll(() => {
  sim.close();
  rmSync(folder, { recursive: true, force: true });
});

const order = async (path: string, body: object, unit = 'tern-1') =>
  (await (
    await fetch(`http://127.0.0.1:${sim.port}/bench/radios/${unit}${path}`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${sim.key}` },
      body: JSON.stringify(body),
    })
  ).json()) as { port: { tcp: number } | null };
const plug = async (unit?: string) => (await order('', { plugged: true, on: true }, unit)).port!.tcp;

test('what is read is what the unit was made with; passes follow each other on one port', async () => {
  const port = await plug();
  for (let pass = 0; pass < 3; pass++) {
    const read = await runLink(port, ternP2, { kind: 'read' });
    expect(read).toMatchObject({ kind: 'finished', ident: { serial: 'LK204417' } });
    expect(
      read.kind === 'finished' && Buffer.from(read.image!).equals(Buffer.from(newMemory(UNITS[0]!))),
    ).toBe(true);
  }
});

test('progress rises to the whole and is told by what the radio has answered', async () => {
  const port = await plug();
  const seen: number[] = [];
  const image = newMemory(UNITS[0]!);
  const end = await runLink(
    port,
    ternP2,
    { kind: 'write', image, serial: 'LK204417' },
    (event: LinkEvent) => event.kind === 'progress' && seen.push(event.bytes),
  );
  expect(end.kind).toBe('finished');
  expect(seen).toEqual(Array.from({ length: 32 }, (_, block) => (block + 1) * 256));
});

test('a pulled cable and a stop end the link at once, with the state of the radio', async () => {
  const port = await plug();
  const write = { kind: 'write' as const, image: newMemory(UNITS[0]!), serial: 'LK204417' };
  await order('/faults', { kind: 'pull', atByte: 3000 });
  expect(await runLink(port, ternP2, write)).toMatchObject({
    kind: 'failed',
    radio: 'half written',
    reason: expect.stringContaining('vanished'),
  });
  const again = await plug();
  const stop = new AbortController();
  const stopped = await runLink(
    again,
    ternP2,
    write,
    (event) => event.kind === 'progress' && event.bytes > 2000 && stop.abort(),
    stop.signal,
  );
  expect(stopped).toMatchObject({ kind: 'failed', radio: 'half written' });
  expect(await runLink(again, ternP2, write)).toMatchObject({ kind: 'finished' });
});

test('a port that is not there, and one that is no radio, are said to be so', async () => {
  await order('', { plugged: false });
  const gone = createServer();
  await new Promise<void>((resolve) => gone.listen(0, '127.0.0.1', resolve));
  const { port } = gone.address() as { port: number };
  await new Promise((resolve) => gone.close(resolve));
  expect(await runLink(port, ternP2, { kind: 'identify' })).toMatchObject({
    kind: 'failed',
    radio: 'untouched',
    reason: expect.stringContaining('not there'),
  });
  const mute = createServer((socket) => void socket.write('220 some other service\r\n'));
  await new Promise<void>((resolve) => mute.listen(0, '127.0.0.1', resolve));
  const other = await runLink((mute.address() as { port: number }).port, ternP2, { kind: 'identify' });
  mute.close();
  expect(other).toMatchObject({ kind: 'failed', reason: expect.stringContaining('does not answer') });
});

test('whoever answers says who it is, asked once, whatever its model', async () => {
  const linked = UNITS.filter(({ model: { link } }) => link !== null && link.kind !== 'card');
  expect(new Set(linked.map(({ model }) => model.id)).size).toBeGreaterThan(3);
  for (const unit of linked) {
    const tcp = await plug(unit.id);
    const asked = await runLink(tcp, null, { kind: 'identify' });
    expect(asked).toMatchObject({
      kind: 'finished',
      ident: { model: unit.model.link!.ident, serial: unit.serial, imageBytes: bytesOf(unit.model) },
    });
  }
});

test('a Tern P3 is read and written whole, as any model is that is data alone', async () => {
  const unit = UNITS.find(({ model }) => model.id === 'tern-p3')!;
  const tcp = await plug(unit.id);
  const read = await runLink(tcp, unit.model, { kind: 'read' });
  if (read.kind !== 'finished') throw new Error(read.reason);
  const decoded = decodeImage(read.image!, unit.model);
  expect(decoded.ok && decoded.value.channels.map(({ slot, name }) => [slot, name])).toEqual([
    [1, 'CALLING'],
    [2, 'KTR 222'],
    [220, 'LAST'],
  ]);
  const image = encodeImage({ channels: [], settings: { greeting: 'EMPTY' } }, read.image!, unit.model);
  const written = await runLink(tcp, unit.model, { kind: 'write', image, serial: unit.serial });
  expect(written).toMatchObject({ kind: 'finished' });
  const back = await runLink(tcp, unit.model, { kind: 'read' });
  if (back.kind !== 'finished') throw new Error(back.reason);
  expect(compareImages(image, back.image!, unit.model).different).toEqual([]);
  expect(back.image).toHaveLength(16_384);
});

test('a radio whose line does not come up again between its modules is half written, however the line is missed', async () => {
  const curlews = UNITS.filter(({ model }) => model.link?.kind === 'block' && model.link.modules.length > 1);
  // A port that was there and is not: it is let go of before it is named.
  const gone = await new Promise<number>((named) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => named(port));
    });
  });
  for (const [next, words] of [
    [null, 'did not come back'],
    [gone, 'not there any more'],
  ] as const) {
    const unit = curlews.pop()!;
    const write = { kind: 'write' as const, image: newMemory(unit), serial: unit.serial };
    const place = await plug(unit.id);
    const end = await runLink({ place, again: () => Promise.resolve(next) }, unit.model, write);
    expect(end).toMatchObject({
      kind: 'failed',
      radio: 'half written',
      reason: expect.stringContaining(words),
    });
  }
});
