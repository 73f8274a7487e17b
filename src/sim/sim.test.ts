import * as fc from '../core/property.test.kit';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decodeImage, ownedMask } from '../core/image';
import { frameBytes, NOTHING_PENDING, readFrames, readIdent } from '../core/link';
import { readRow } from '../core/directory';
import { distanceKm } from '../core/radio';
import { contentOf, deviceOf, hear, powerUp, type Device } from './bench/device';
import { Line } from './bench/line';
import { newMemory, UNITS } from './bench/units';
import { generateRegister } from './register/generate';
import { findTowns, TOWNS } from './register/gazetteer';
import { startSim } from './server';

const unit = UNITS[0]!;
const device = (): Device => deviceOf(unit, newMemory(unit));
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

test('a line of 9,600 bit/s, ten times as fast, carries 960 bytes in a tenth of a second and in order', () => {
  jest.useFakeTimers();
  const got: Uint8Array[] = [];
  const line = new Line(
    () => 96_000,
    (bytes) => got.push(Uint8Array.from(bytes)),
  );
  const sent = Uint8Array.from({ length: 960 }, (_, i) => i & 0xff);
  line.put(sent.slice(0, 500));
  line.put(sent.slice(500));
  // 9,600 bytes a second: 384 in 40 ms.
  jest.advanceTimersByTime(40);
  // A byte that is only just due may come with the next tick.
  expect(Math.abs(line.backlog - (960 - 384))).toBeLessThanOrEqual(1);
  jest.advanceTimersByTime(64);
  expect(line.backlog).toBe(0);
  jest.useRealTimers();
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

describe('the process', () => {
  const folder = mkdtempSync(join(tmpdir(), 'veridon-sim-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const options = { port: 0, folder, speed: 10 };
  type Sim = Awaited<ReturnType<typeof startSim>>;
  const ask = async (
    sim: Sim,
    path: string,
    body?: object | string,
    headers: Record<string, string> = {},
  ) => {
    const response = await fetch(`http://127.0.0.1:${sim.port}${path}`, {
      headers: { Authorization: `Bearer ${sim.key}`, ...headers },
      ...(body !== undefined && {
        method: 'POST',
        body: typeof body === 'string' ? body : JSON.stringify(body),
      }),
    });
    return {
      status: response.status,
      headers: response.headers,
      body: (await response.json()) as {
        slot?: number;
        plugged?: boolean;
        face?: { large: string } | null;
        ports?: unknown[];
      },
    };
  };
  const TERN = '/bench/radios/tern-1';

  test('keeps memory over a stop, its port comes and goes with the plug, and bad orders are refused', async () => {
    const first = await startSim(options);
    const ports = async () => (await ask(first, '/bench/ports')).body.ports!.length;
    expect(await ports()).toBe(0);
    await ask(first, TERN, { plugged: true, turn: 1 });
    expect(await ports()).toBe(1);
    expect((await ask(first, TERN, { plugged: false })).body).toMatchObject({
      slot: 1,
      plugged: false,
      face: { large: 'ULLSM' },
    });
    expect(await ports()).toBe(0);
    expect((await ask(first, TERN, { on: false })).body.face).toBeNull();
    expect(await ask(first, TERN, { spin: 1 })).toMatchObject({ status: 400 });
    expect(await ask(first, `${TERN}/faults`, { kind: 'gremlins' })).toMatchObject({ status: 400 });
    expect(await ask(first, '/bench/radios/other', {})).toMatchObject({ status: 404 });
    expect(await ask(first, TERN, 'not json')).toMatchObject({ status: 400 });
    first.close();
    const kept = JSON.parse(readFileSync(join(folder, 'LK204417.radio'), 'utf8')) as { memory: string };
    expect(Buffer.from(kept.memory, 'base64')).toHaveLength(8192);
    const second = await startSim(options);
    expect((await ask(second, TERN, { on: true })).body).toMatchObject({ slot: 1 });
    second.close();
  });

  test('a radio that was kept in two files is found again', async () => {
    const old = join(folder, 'old');
    mkdirSync(old);
    const image = newMemory(UNITS[1]!);
    writeFileSync(join(old, 'LK204533.bin'), image);
    const state = { plugged: false, on: true, slot: 1, battery: 33, halfWritten: false };
    writeFileSync(join(old, 'LK204533.json'), JSON.stringify(state));
    const sim = await startSim({ ...options, folder: old });
    const look = await ask(sim, '/bench/radios/tern-2', {});
    expect(look.body).toMatchObject({ slot: 1, battery: 33, face: { large: '145.6500' } });
    sim.close();
  });

  test('only its own page and whoever has the key handle it; no page frames it', async () => {
    const sim = await startSim(options);
    const key = { Authorization: 'Bearer 0123' };
    expect(await ask(sim, TERN, { plugged: true }, key)).toMatchObject({ status: 401 });
    expect(await ask(sim, '/bench/radios', undefined, key)).toMatchObject({ status: 401 });
    expect(await ask(sim, '/register/faults', { kind: 'none' }, key)).toMatchObject({ status: 401 });
    expect(await ask(sim, '/register/places?q=ketterby', undefined, key)).toMatchObject({ status: 200 });
    // the key does not help a page of another port of this machine
    const other = { Origin: `http://127.0.0.1:${sim.port + 1}` };
    expect(await ask(sim, TERN, { plugged: true }, other)).toMatchObject({ status: 403 });
    const own = { Origin: `http://127.0.0.1:${sim.port}` };
    expect(await ask(sim, TERN, { plugged: false }, own)).toMatchObject({ status: 200 });
    const page = await fetch(`http://127.0.0.1:${sim.port}/`);
    expect(page.headers.get('x-frame-options')).toBe('DENY');
    expect(page.headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
    const html = await page.text();
    expect(html).not.toContain(sim.key);
    const handed = /data-key="([0-9a-f]{48})"/.exec(html)![1]!;
    // Of its folder plain names alone are handed out.
    for (const path of [
      '/page/../bench.mjs',
      '/page/%2e%2e%2fbench.mjs',
      '/page/.hidden',
      '/page/main.exe',
      '/page/a/b.js',
    ])
      expect((await ask(sim, path, undefined, {})).status).not.toBe(200);
    const pages = { Authorization: `Bearer ${handed}` };
    expect(await ask(sim, TERN, { plugged: false }, pages)).toMatchObject({ status: 200 });
    sim.close();
    expect(statSync(join(folder, 'key')).mode & 0o777).toBe(0o600);
  });
});
