import * as fc from '../property.test.kit';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { anyContentOf, anyImageOf } from '../contents.test.kit';
import { anyPlan, channel, plan } from '../samples.test.kit';
import { contentToWrite } from '../check';
import { fit } from '../fit';
import { ospreyD7 } from '../models/osprey-d7';
import { ternP2 } from '../models/tern-p2';
import { blankImage, formatSchema, hasSignature, partStart } from '../format';
import { MODELS, modelSchema, noContent, type Model } from '../models';
import { formatOf } from '../models/formats';
import {
  bytesOf,
  compareImages,
  decodeImage,
  encodeImage,
  imageHolds,
  ownedMask,
  type RadioContent,
} from '.';

const nothing = { channels: [], settings: {} };
const blankOf = (model: Model) => encodeImage(nothing, blankImage(formatOf(model)), model);
const blank = () => blankOf(ternP2);
/** Fewer of images that take long. */
const runs = (model: Model, usual: number) => (bytesOf(model) > 0x20000 ? usual / 2 : usual);

test('a channel stands in the bytes as docs/models/tern-p2.md says', () => {
  const content = {
    channels: [
      {
        list: 0,
        slot: 2,
        name: 'KTRBY',
        rx: 430_887_500,
        tx: 438_487_500,
        mode: 'NFM' as const,
        power: 1000,
        scan: true,
        send: { kind: 'tone' as const, tone: 885 },
        expect: { kind: 'code' as const, code: 23, inverted: true },
      },
      {
        list: 0,
        slot: 149,
        name: '',
        rx: 162_400_000,
        tx: null,
        mode: 'FM' as const,
        power: 4000,
        scan: false,
        send: null,
        expect: null,
      },
    ],
    settings: { squelch: 7 },
  };
  const image = encodeImage(content, new Uint8Array(0x2000), ternP2);
  const hex = (from: number, bytes: number) =>
    Buffer.from(image.subarray(from, from + bytes)).toString('hex');
  // record 2 at 0x0200 + 2 * 24 = 0x0230: 43088750 and 43848750, pairs of figures turned round; tone 88.5 is the ninth,
  // code 023 the first (101 = 0x65), inverted expect is bit 1, narrow bit 0 and low power bit 1; KTRBY and a space
  expect(hex(0x0230, 18)).toBe('50870843' + '50878443' + '09' + '65' + '02' + '03' + '4b5452425920');
  // record 149 at 0x0200 + 149 * 24 = 0x0ff8: listen only is all bits set
  expect(hex(0x0ff8, 12)).toBe('00002416' + 'ffffffff' + '00000000');
  expect(image[0x0100]).toBe(0b100);
  expect(image[0x0100 + 18]).toBe(0b100000); // 149 = 18 * 8 + 5
  expect(image[0x0120]).toBe(0b100);
  expect(image[0x0120 + 18]).toBe(0);
  expect(image[0x0081]).toBe(7);
  let sum = 0;
  for (let i = 0x80; i <= 0x1ffd; i++) sum += image[i]!;
  expect(image[0x1ffe]! | (image[0x1fff]! << 8)).toBe(sum % 65536);
});

describe.each(MODELS.map((model) => [model.name, model] as const))('%s', (_, model) => {
  test('decode of encode is the content, whatever the image was; bits that are not ours are equal before and after', () => {
    const mask = ownedMask(model);
    const foreign = (bytes: Uint8Array) => Buffer.from(bytes.map((byte, at) => byte & ~mask[at]!));
    const reached = fc.tally();
    fc.assert(
      fc.property(anyContentOf(model), anyImageOf(model), (content, base) => {
        const image = encodeImage(content, base, model);
        expect(decodeImage(image, model)).toEqual({ ok: true, value: content });
        expect(foreign(image).equals(foreign(base))).toBe(true);
        for (const list of model.lists.keys())
          reached.count(
            'channels in each list',
            content.channels.some((one) => one.list === list),
          );
        reached.count(
          'splits',
          content.channels.some(({ split }) => split),
        );
        reached.count(
          'banks with channels',
          content.zones.some(({ slots }) => slots.length > 0),
        );
        reached.count('quick set-ups', content.setUps.length > 0);
        reached.count(
          'a digital channel with its talkgroup',
          content.channels.some(({ digital }) => digital?.talkgroup),
        );
        reached.count(
          'a scan list with channels and a priority',
          content.scanLists.some(({ slots, first }) => slots.length > 0 && first !== null),
        );
        reached.count(
          'an empty position before another',
          content.zones.some(({ knob }) => knob?.includes(0)),
        );
      }),
      { numRuns: runs(model, 40) },
    );
    reached.expectShare('channels in each list', 0.5);
    if (model.storedShifts.length > 0) reached.expectShare('splits', 0.5);
    if (model.zones) reached.expectShare('banks with channels', 0.5);
    if (model.digital) reached.expectShare('a digital channel with its talkgroup', 0.3);
    if (model.scanLists) reached.expectShare('a scan list with channels and a priority', 0.3);
    if (model.zones?.knob) reached.expectShare('an empty position before another', 0.3);
    if (model.setUps) reached.expectShare('quick set-ups', 0.5);
  });

  test('no bytes make it throw, and what it reads it writes back', () => {
    fc.assert(
      fc.property(anyImageOf(model), (image) => {
        const summed = withChecksum(image, model);
        const decoded = decodeImage(summed, model);
        if (!decoded.ok) throw new Error(decoded.reason);
        const again = decodeImage(encodeImage(decoded.value, summed, model), model);
        expect(again.ok && again.value).toEqual(decoded.value);
      }),
      { numRuns: runs(model, 30) },
    );
  });

  test('is what the schemas say, and its display and bytes hold names of one length', () => {
    expect(modelSchema.safeParse(model).error).toBeUndefined();
    expect(formatSchema.safeParse(formatOf(model)).error).toBeUndefined();
    const [layout] = formatOf(model).layouts;
    expect(layout).toMatchObject({ table: 'channels', ...model.slots });
    const names = (layout!.columns ?? []).flatMap((column) =>
      column.kind === 'table' ? [column.row.name] : [],
    );
    expect(layout!.row.name ?? names[0]).toMatchObject({ kind: 'text', bytes: model.names.length });
    expect(hasSignature(blankOf(model), formatOf(model))).toBe(true);
  });

  test('its areas lie side by side and fill the memory; bits of ours lie only in areas of ours', () => {
    const mask = ownedMask(model);
    let at = 0;
    for (const area of formatOf(model).areas) {
      expect(partStart(formatOf(model), area.part) + area.from).toBe(at);
      const bits = mask.subarray(at, at + area.bytes).some((byte) => byte !== 0);
      at += area.bytes;
      expect([area.name, bits]).toEqual([area.name, area.owner === 'ours' || area.owner === 'checksum']);
    }
    expect(at).toBe(bytesOf(model));
  });

  test('its page in docs names every area at its address', () => {
    const text = readFileSync(`docs/models/${model.id}.md`, 'utf8');
    for (const { part, from } of formatOf(model).areas)
      expect(text).toContain(part ?? `0x${from.toString(16).padStart(4, '0')}`);
  });

  test('the bytes of its page are those of a radio that holds what the page says', () => {
    const { content, bytes } = goldenOf(readFileSync(`docs/models/${model.id}.md`, 'utf8'));
    const image = encodeImage({ ...noContent(), ...content }, blankImage(formatOf(model)), model);
    expect(bytes.length).toBeGreaterThan(2);
    for (const { part, at, hex } of bytes) {
      const from = partStart(formatOf(model), part) + at;
      expect([at, Buffer.from(image.subarray(from, from + hex.length / 2)).toString('hex')]).toEqual([
        at,
        hex,
      ]);
    }
    expect(decodeImage(image, model)).toMatchObject({ ok: true, value: content });
  });
});

/**
 * The example of a model's page: what a radio holds, as JSON, and below it bytes laid by hand: an address and pairs of figures, or a
 * file, a place in it and the text that stands there.
 */
function goldenOf(page: string) {
  const [, json, laid] = /## An example[\s\S]*?```json\n([\s\S]*?)```[\s\S]*?```\n([\s\S]*?)```/.exec(page)!;
  const bytes = laid!
    .trimEnd()
    .split('\n')
    .map((line) => {
      const [, address, pairs] = /^0x([0-9a-f]{4,5}) +((?:[0-9a-f]{2} ?)+)/.exec(line) ?? [];
      if (address) return { part: undefined, at: parseInt(address, 16), hex: pairs!.replaceAll(' ', '') };
      const [, part, at, text] = /^(\S+) (\d+) \|(.*)\|$/.exec(line)!;
      return { part, at: Number(at), hex: Buffer.from(text!, 'latin1').toString('hex') };
    });
  return { content: JSON.parse(json!) as RadioContent, bytes };
}

/** Bytes with the sum that stands in each checksum of the format, by hand: modulo 65536, least significant first. */
function withChecksum(bytes: Uint8Array, model: Model): Uint8Array {
  const image = bytes.slice();
  for (const { at, from, to } of formatOf(model).checksums) {
    let sum = 0;
    for (let i = from; i <= to; i++) sum += image[i]!;
    image.set([sum & 0xff, (sum >> 8) & 0xff], at);
  }
  return image;
}

describe('images made by the Veridon before formats were data of their own', () => {
  const made = JSON.parse(gunzipSync(readFileSync('src/core/image/fixtures/tern-p2.json.gz')).toString()) as {
    list: (RadioContent & { sha256: string })[];
    units: { image: string; decoded: { value: Pick<RadioContent, 'channels' | 'settings'> } }[];
  };
  const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
  /** The image on which each was made: every 32 bytes are the digest of their place. */
  const base = (n: number) => {
    const image = new Uint8Array(0x2000);
    for (let i = 0; i < 0x2000; i += 32) image.set(createHash('sha256').update(`base ${n} ${i}`).digest(), i);
    return image;
  };
  /** What was decoded then, with what radios of one list do not have. */
  const inToday = ({ value, ...rest }: { value: Pick<RadioContent, 'channels' | 'settings'> }) => ({
    ...rest,
    value: { ...noContent(), ...value, channels: value.channels.map((one) => ({ ...one, list: 0 })) },
  });
  test('are made again to the byte', () => {
    expect(made.list).toHaveLength(40);
    for (const [n, { channels, settings, sha256 }] of made.list.entries())
      expect(
        sha(
          encodeImage({ channels: channels.map((one) => ({ ...one, list: 0 })), settings }, base(n), ternP2),
        ),
      ).toBe(sha256);
  });
  test('are read as they were', () => {
    for (const { image, decoded } of made.units)
      expect(decodeImage(Uint8Array.from(Buffer.from(image, 'base64')), ternP2)).toEqual(inToday(decoded));
  });
});

test('decode of encode is the fit, for any plan', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      anyPlan.filter(({ channels }) => channels.length > 2),
      (p) => {
        const channels = fit(p, ternP2).channels.map(({ id: _id, ...fitted }) => fitted);
        const decoded = decodeImage(encodeImage({ channels, settings: {} }, blank(), ternP2), ternP2);
        expect(decoded.ok && decoded.value.channels).toEqual(channels);
        const written = contentToWrite(p, ternP2);
        expect(written.channels.length + written.heldBack.length).toBe(p.channels.length);
        reached.count('written', written.channels.length > 0);
        reached.count(
          'received with a tone',
          written.channels.some(({ expect: tone }) => tone !== null),
        );
        reached.count('held back', written.heldBack.length > 0);
      },
    ),
    { numRuns: 300 },
  );
  for (const what of ['written', 'received with a tone', 'held back']) reached.expectShare(what, 0.6);
});

test('identification, region and calibration have not one bit of ours; of a record the six last bytes are the radio’s', () => {
  const mask = ownedMask(ternP2);
  for (const [from, to] of [
    [0x0000, 0x0080],
    [0x0212, 0x0218],
    [0x1c00, 0x1ffe],
  ] as const)
    expect(mask.subarray(from, to).every((bits) => bits === 0)).toBe(true);
  expect(mask[0x020b]).toBe(0b11);
});

describe('read-outs that are wrong', () => {
  test('length and checksum', () => {
    expect(decodeImage(new Uint8Array(100), ternP2)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('8192 bytes'),
    });
    const image = blank();
    image[0x1000] = image[0x1000]! ^ 1;
    expect(decodeImage(image, ternP2)).toMatchObject({
      ok: false,
      reason: expect.stringContaining('checksum'),
    });
  });
  test('a slot that makes no sense is named and left out, the rest is read', () => {
    const p = plan([channel(3, 145_500_000), channel(4, 145_525_000)]);
    const base = encodeImage({ channels: fit(p, ternP2).channels, settings: {} }, blank(), ternP2);
    base[0x0200 + 3 * 24] = 0xab;
    const image = encodeImage({ channels: [], settings: {} }, base, ternP2);
    const broken = base.slice();
    // the checksum of the broken one, by hand: the sum of its bytes
    let sum = 0;
    for (let i = 0x80; i <= 0x1ffd; i++) sum += broken[i]!;
    broken.set([sum & 0xff, (sum >> 8) & 0xff], 0x1ffe);
    expect(imageHolds(image, ternP2)).toBe(true);
    const decoded = decodeImage(broken, ternP2);
    expect(decoded).toMatchObject({ ok: true, note: expect.stringContaining('slot 3') });
    expect(decoded.ok && decoded.value.channels.map((c) => c.slot)).toEqual([4]);
  });
});

test('comparison counts the radio’s own counters apart', () => {
  const sent = blank();
  const back = sent.slice();
  back[0x0070] = 9;
  back[0x0300] = 9;
  expect(compareImages(sent, back, ternP2)).toEqual({
    compared: 0x2000 - 16,
    different: [0x0300],
    volatile: { bytes: 16, different: 1 },
  });
});

test('what an image is written on stays as it was, whichever kind of bytes it is: those of sockets and files share what they are sliced of', () => {
  for (const model of MODELS) {
    const base = Buffer.from(blankImage(formatOf(model)));
    const before = Uint8Array.from(base);
    const image = encodeImage({ channels: [], settings: {} }, base, model);
    image.fill(0x5a);
    expect(base.equals(before)).toBe(true);
  }
});

test('a zone has the scan list that it names, and none where the radio has no such list', () => {
  const list = (number: number) => ({
    ...{ number, name: `Scan ${number}`, slots: [1], first: null, second: null },
    ...{ answers: 'heard' as const, startsItself: false },
  });
  const content = (lists: number[]): RadioContent => ({
    ...noContent(),
    settings: {},
    channels: fit(plan([channel(1, 145_500_000)]), ospreyD7).channels,
    zones: [1, 2].map((number) => ({
      ...{ list: 0, number, name: `Zone ${number}`, slots: [1] },
      scanList: number,
    })),
    scanLists: lists.map(list),
  });
  const base = blankImage(formatOf(ospreyD7));
  const scanLists = (lists: number[]) => {
    const read = decodeImage(encodeImage(content(lists), base, ospreyD7), ospreyD7);
    return read.ok && read.value.zones!.map((zone) => zone.scanList);
  };
  expect(scanLists([1, 2])).toEqual([1, 2]);
  expect(scanLists([2])).toEqual([null, 2]);
});
