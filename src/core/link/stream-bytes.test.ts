import { crc32 as zlibCrc32 } from 'node:zlib';
import { ternP2 } from '../models/tern-p2';
import { IDENT } from '../samples.test.kit';
import { isOpen, startLink, stepLink, type LinkStep } from '.';

const IMAGE = Uint8Array.from({ length: 8192 }, (_, i) => (i * 7 + (i >> 8)) & 0xff);
const text = (s: string) => new TextEncoder().encode(s);
/** CRC-32 as Node's zlib has it, apart from the one that is tested; eight figures. */
const sum32 = (bytes: Uint8Array) => zlibCrc32(bytes).toString(16).padStart(8, '0');

describe('the bytes of docs/stream-link.md', () => {
  const hex = (bytes: Uint8Array) => Buffer.from(bytes).toString('hex');
  const bytes = (text: string) => Uint8Array.from(Buffer.from(text, 'hex'));
  /** CRC-16/XMODEM bit by bit over a message and 16 zero bits, apart from the one that is tested. */
  const sum = (message: string) => {
    let rest = 0;
    for (const byte of [...bytes(message), 0, 0])
      for (let bit = 7; bit >= 0; bit--) {
        const over = rest & 0x8000;
        rest = ((rest << 1) | ((byte >> bit) & 1)) & 0xffff;
        if (over) rest ^= 0x1021;
      }
    return rest.toString(16).padStart(4, '0');
  };
  const frame = (body: string) => `01${body}${sum(body)}`;
  /** What a radio says that is a Tern P2, LK204417, 1.07, region 3, 8,192 bytes, whole or half written. */
  const ident = (state: '00' | '01') =>
    frame(`690000185445524e2d5032204c4b323034343137312e3037032000${state}`);
  const sent = (step: LinkStep) => step.send.map(hex);
  const hears = (step: LinkStep, ...frames: string[]) =>
    stepLink(step.state, { kind: 'bytes', bytes: bytes(frames.join('')) });

  test('the sums themselves', () => {
    expect(sum(hex(text('123456789')))).toBe('31c3');
    expect(sum32(text('123456789'))).toBe('cbf43926');
  });

  test('a read asks who, then for everything, and ends with its thanks', () => {
    const asked = startLink(ternP2, { kind: 'read' });
    expect(sent(asked)).toEqual([frame('49000000')]);
    expect(asked.events).toEqual([]);
    const reading = hears(asked, ident('00'));
    expect(reading.events).toEqual([{ kind: 'identified', ident: IDENT }]);
    expect(sent(reading)).toEqual([frame('52000000')]);
    const block = (n: number) =>
      frame(`44${hex(Uint8Array.of(n))}0100${hex(IMAGE.subarray(n * 256, n * 256 + 256))}`);
    const all = Array.from({ length: 32 }, (_, n) => block(n));
    // blocks 4 and 30 do not come: they are asked for again, one byte each
    const some = all.filter((_, n) => n !== 4 && n !== 30);
    const end = frame(`45000004${sum32(IMAGE)}`);
    const again = hears(reading, ...some, end);
    expect(sent(again)).toEqual([frame('51000002041e')]);
    const done = hears(again, all[4]!, all[30]!, end);
    expect(sent(done)).toEqual([frame('41ff0000')]);
    expect(done.events.at(-1)).toMatchObject({ kind: 'finished', image: IMAGE });
  });

  test('a read whose sum is another one is not taken', () => {
    const reading = hears(startLink(ternP2, { kind: 'read' }), ident('00'));
    const all = Array.from({ length: 32 }, (_, n) =>
      frame(`44${hex(Uint8Array.of(n))}0100${hex(IMAGE.subarray(n * 256, n * 256 + 256))}`),
    );
    const { events, send } = hears(reading, ...all, frame('4500000400000000'));
    expect(events.at(-1)).toMatchObject({
      kind: 'failed',
      reason: expect.stringContaining('does not add up'),
    });
    expect(send).toEqual([]);
  });

  test('a write opens with its length, sends four blocks, and is done with the answer ff alone', () => {
    const opening = hears(
      startLink(ternP2, { kind: 'write', image: IMAGE, serial: 'LK204417' }),
      ident('01'),
    );
    expect(opening.events).toEqual([{ kind: 'identified', ident: { ...IDENT, halfWritten: true } }]);
    expect(sent(opening)).toEqual([frame('570000022000')]);
    let step = hears(opening, frame('4b000000'));
    expect(sent(step).map((one) => one.slice(0, 10))).toEqual([
      '0144000100',
      '0144010100',
      '0144020100',
      '0144030100',
    ]);
    expect(sent(step)[0]).toBe(frame(`44000100${hex(IMAGE.subarray(0, 256))}`));
    for (let n = 0; n < 32; n++) step = hears(step, frame(`41${hex(Uint8Array.of(n))}0000`));
    expect(sent(step)).toEqual([frame(`45000004${sum32(IMAGE)}`)]);
    // a late answer to a block is not the end
    const late = hears(step, frame('411f0000'));
    expect(isOpen(late.state)).toBe(true);
    expect(hears(late, frame('41ff0000')).events).toEqual([
      { kind: 'finished', ident: expect.anything(), image: null },
    ]);
  });

  test.each([
    ['00', 'a block arrived damaged'],
    ['01', 'its battery is too low for writing'],
    ['02', 'it refuses to be written'],
    ['03', 'the whole did not add up'],
    ['04', 'it expects another length'],
    ['05', 'it gives no reason'],
  ])('the refusal %s reads: %s', (code, reason) => {
    const opening = hears(
      startLink(ternP2, { kind: 'write', image: IMAGE, serial: 'LK204417' }),
      ident('00'),
    );
    expect(hears(opening, frame(`4eff0001${code}`)).events.at(-1)).toEqual({
      kind: 'failed',
      reason: `The radio says no: ${reason}.`,
      radio: 'untouched',
    });
  });
});
