import fc from 'fast-check';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decodeImage, ownedMask } from '../core/image';
import { frameBytes, NOTHING_PENDING, readFrames, readIdent } from '../core/link';
import { readRow } from '../core/directory';
import { distanceKm } from '../core/radio';
import { contentOf, freshLink, hear, powerUp, type Device } from './bench/device';
import { Line } from './bench/line';
import { newMemory, UNITS } from './bench/units';
import { generateRegister } from './register/generate';
import { findTowns, TOWNS } from './register/gazetteer';
import { startSim } from './server';

const unit = UNITS[0]!;
const device = (): Device => ({
  model: unit.model,
  serial: unit.serial,
  firmware: unit.firmware,
  region: unit.region,
  memory: newMemory(unit),
  halfWritten: false,
  battery: 80,
  refusesWriting: false,
  identAs: unit.model.link.ident,
  link: freshLink(unit.model),
});
const said = (send: Uint8Array[]) => send.flatMap((bytes) => readFrames(NOTHING_PENDING, bytes).frames);
const tell = (to: Device, ...frames: Uint8Array[]) => hear(to, Buffer.concat(frames));

describe('a radio on the bench', () => {
  test('its first content can be read, and each unit has serial, region and calibration of its own', () => {
    for (const spec of UNITS)
      expect(decodeImage(newMemory(spec), spec.model)).toMatchObject({
        ok: true,
        value: { channels: spec.content.channels },
      });
    const [a, b] = UNITS.map(newMemory);
    expect(Buffer.from(a!.subarray(0x1c00, 0x1ff0)).equals(Buffer.from(b!.subarray(0x1c00, 0x1ff0)))).toBe(
      false,
    );
  });

  test('says who it is', () => {
    const [answer] = said(tell(device(), frameBytes('identify')).send);
    expect(readIdent(answer!.payload)).toMatchObject({
      model: 'TERN-P2 ',
      serial: 'LK204417',
      firmware: '1.07',
      imageBytes: 8192,
      halfWritten: false,
    });
  });

  test('hears the same, however the bytes are split', () => {
    const stream = Buffer.concat([
      frameBytes('identify'),
      frameBytes('write', 0, Uint8Array.of(0x20, 0)),
      frameBytes('block', 3, new Uint8Array(256)),
    ]);
    const whole = hear(device(), stream);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 90 }), { minLength: 1 }), (sizes) => {
        let now = device();
        const sent: Uint8Array[] = [];
        for (let at = 0, i = 0; at < stream.length; at += sizes[i++ % sizes.length]!) {
          const step = hear(now, stream.subarray(at, at + sizes[i % sizes.length]!));
          now = step.device;
          sent.push(...step.send);
        }
        expect(Buffer.concat(sent).equals(Buffer.concat(whole.send))).toBe(true);
        expect(now.halfWritten).toBe(true);
      }),
      { numRuns: 60 },
    );
  });

  test('nothing is touched before the first block; from it on the radio is dead until written whole', () => {
    const opened = tell(device(), frameBytes('write', 0, Uint8Array.of(0x20, 0))).device;
    expect(opened.halfWritten).toBe(false);
    const begun = tell(opened, frameBytes('block', 0, new Uint8Array(256))).device;
    expect(begun.halfWritten).toBe(true);
    expect(contentOf(powerUp(begun))).toBeUndefined();
  });

  test('refuses on a low battery, another length, and a whole that does not add up', () => {
    const reason = (to: Device, ...frames: Uint8Array[]) => said(tell(to, ...frames).send).at(-1);
    expect(
      reason({ ...device(), battery: 19 }, frameBytes('write', 0, Uint8Array.of(0x20, 0))),
    ).toMatchObject({ type: 'no', payload: Uint8Array.of(1) });
    expect(reason(device(), frameBytes('write', 0, Uint8Array.of(0x10, 0)))).toMatchObject({
      type: 'no',
      payload: Uint8Array.of(4),
    });
    expect(
      reason(
        device(),
        frameBytes('write', 0, Uint8Array.of(0x20, 0)),
        frameBytes('end', 0, Uint8Array.of(0, 0)),
      ),
    ).toMatchObject({ type: 'no', sequence: 0xff, payload: Uint8Array.of(3) });
  });

  test('counts being switched on in bytes of its own, which are not ours', () => {
    const on = powerUp(device());
    expect(on.memory[0x70]).toBe(1);
    expect(ownedMask(unit.model)[0x70]).toBe(0);
    expect(contentOf(on)).toEqual(contentOf(device()));
  });
});

test('a line of 9,600 bit/s, ten times as fast, carries 960 bytes in about a tenth of a second and in order', async () => {
  const got: Uint8Array[] = [];
  const line = new Line(
    () => 96_000,
    (bytes) => got.push(Uint8Array.from(bytes)),
  );
  const sent = Uint8Array.from({ length: 960 }, (_, i) => i & 0xff);
  line.put(sent.slice(0, 500));
  line.put(sent.slice(500));
  await new Promise((resolve) => setTimeout(resolve, 40));
  expect(line.backlog).toBeGreaterThan(0);
  while (line.backlog > 0) await new Promise((resolve) => setTimeout(resolve, 5));
  expect(Buffer.concat(got).equals(Buffer.from(sent))).toBe(true);
});

describe('the Relay Register', () => {
  const rows = generateRegister();
  test('is the same every time and every row can be read', () => {
    expect(rows).toHaveLength(2500);
    expect(generateRegister()).toEqual(rows);
    expect(rows.filter((row) => !readRow(row).ok)).toEqual([]);
  });
  test('calls begin with Q7 on Ullsmere and Brannoch, Q8 elsewhere, and none is there twice', () => {
    const calls = rows.filter((row) => row.call !== '');
    expect(
      calls.every((row) => row.call.startsWith(['Ullsmere', 'Brannoch'].includes(row.island) ? 'Q7' : 'Q8')),
    ).toBe(true);
    expect(new Set(calls.map((row) => row.call)).size).toBe(calls.length);
  });
  test('there is enough around Ketterby to choose from', () => {
    const ketterby = findTowns('ketterby')[0]!;
    expect(ketterby).toMatchObject({ name: 'Ketterby', lat: 52.06, lon: -29.84 });
    expect(rows.filter((row) => distanceKm(ketterby, row) <= 40).length).toBeGreaterThan(60);
    expect(TOWNS.length).toBeGreaterThanOrEqual(40);
  });
});

test('the process keeps memory over a stop, its port comes and goes with the plug, and bad orders are refused', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'veridon-sim-'));
  const options = { port: 0, folder, speed: 10 };
  const first = await startSim(options);
  const post = async (port: number, path: string, body: object | string) => {
    const response = await fetch(`http://127.0.0.1:${port}${path}`, {
      method: 'POST',
      body: typeof body === 'string' ? body : JSON.stringify(body),
    });
    return {
      status: response.status,
      body: (await response.json()) as {
        slot?: number;
        plugged?: boolean;
        face?: { large: string } | null;
        error?: string;
      },
    };
  };
  const ports = async (port: number) =>
    ((await (await fetch(`http://127.0.0.1:${port}/bench/ports`)).json()) as { ports: unknown[] }).ports
      .length;
  expect(await ports(first.port)).toBe(0);
  await post(first.port, '/bench/radios/tern-1', { plugged: true, turn: 1 });
  expect(await ports(first.port)).toBe(1);
  expect((await post(first.port, '/bench/radios/tern-1', { plugged: false })).body).toMatchObject({
    slot: 1,
    plugged: false,
    face: { large: 'ULLSM' },
  });
  expect(await ports(first.port)).toBe(0);
  expect((await post(first.port, '/bench/radios/tern-1', { on: false })).body.face).toBeNull();
  expect(await post(first.port, '/bench/radios/tern-1', { spin: 1 })).toMatchObject({ status: 400 });
  expect(await post(first.port, '/bench/radios/tern-1/faults', { kind: 'gremlins' })).toMatchObject({
    status: 400,
  });
  expect(await post(first.port, '/bench/radios/other', {})).toMatchObject({ status: 404 });
  expect(await post(first.port, '/bench/radios/tern-1', 'not json')).toMatchObject({ status: 400 });
  first.close();
  expect(readFileSync(join(folder, 'LK204417.bin'))).toHaveLength(8192);
  const second = await startSim(options);
  expect((await post(second.port, '/bench/radios/tern-1', { on: true })).body).toMatchObject({ slot: 1 });
  second.close();
  rmSync(folder, { recursive: true, force: true });
});
