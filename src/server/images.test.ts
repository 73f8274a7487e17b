import { bytesOf, decodeImage, filesOf, ownedMask } from '../core/image';
import { cardFiles, type Ident } from '../core/link';
import { gannetM8 } from '../core/models/gannet-m8';
import { ploverF5 } from '../core/models/plover-f5';
import { newMemory, UNITS } from '../sim/bench/units';
import { dataFolder } from './data-folder.test.kit';
import { imageBytes, imageFile, imageFiles, openImage } from './images';
import { createPlan } from './plans';
import { editPlan } from './revisions';

/** Images as files: opened, changed, saved; wrong ones said. */

dataFolder('images');

const memoryOf = (id: string) => newMemory(UNITS.find((unit) => unit.id === id)!);
const file = (name: string, bytes: Uint8Array) => ({ name, base64: Buffer.from(bytes).toString('base64') });

test('an image is opened as a plan, changed, and saved again with all that is not ours', async () => {
  const memory = memoryOf('gannet-1');
  const { plan } = await openImage({ files: [file('My van.bin', memory)], rescue: false });
  expect(plan).toMatchObject({ name: 'My van', modelId: 'gannet-m8' });
  expect(plan.channels).toHaveLength(12);
  expect(plan.zones.map(({ name }) => name)).toEqual(['Day 1', 'Day 2']);
  expect(plan.setUps[0]!.sides[0]).toMatchObject({ zone: plan.zones[0]!.id, scanning: true });
  // saved at once it is the very same
  expect(Buffer.from((await imageFile(plan.id)).file as Uint8Array).equals(Buffer.from(memory))).toBe(true);
  const [first] = plan.channels;
  await editPlan(plan.id, 1, { name: 'change', changes: [{ id: first!.id, set: { name: 'Other' } }] });
  const saved = (await imageFile(plan.id)).file as Uint8Array;
  const read = decodeImage(saved, gannetM8);
  expect(read.ok && read.value.channels[0]!.name).toBe('Other');
  const mask = ownedMask(gannetM8);
  expect(saved.map((byte, at) => byte & ~mask[at]!)).toEqual(memory.map((byte, at) => byte & ~mask[at]!));
  // the name in seven bytes and the checksum: “Calling” becomes “Other  ”
  const bytes = await imageBytes(plan.id, 0x100c);
  expect(bytes).toMatchObject({ length: 0x8000, from: 0x1000, changed: 9 });
  expect(bytes.changes).toEqual([0x100c, 0x100d, 0x100e, 0x100f, 0x1010, 0x1011, 0x1012, 0x7ffe, 0x7fff]);
  expect(
    bytes.areas.filter(({ changed }) => changed > 0).map(({ from, changed }) => [from, changed]),
  ).toEqual([
    [0x1000, 7],
    [0x7ffe, 2],
  ]);
  expect(bytes.fields).toContainEqual({ at: 0x100c, label: 'channels 1, name' });
});

test('a file is named in letters that a header can hold, whatever the plan is called', async () => {
  const { plan } = await openImage({
    files: [file('丘 “Ketterby”\r\n.bin', memoryOf('gannet-2'))],
    rescue: false,
  });
  expect(plan.name).toContain('丘');
  expect((await imageFile(plan.id)).name).toMatch(/^[a-z0-9-]+\.gannet-m8\.bin$/);
});

test('a card is opened of its files and saved as them', async () => {
  const card = memoryOf('plover-1');
  const files = filesOf(card, ploverF5).map(({ name, bytes }) => file(name!, bytes));
  const { plan } = await openImage({ files, rescue: false });
  expect(plan.settings['plover-f5']).toMatchObject({ ownCall: 'Q7KWD' });
  expect((await imageFiles(plan.id)).files.map(({ part }) => part)).toEqual([
    'RADIO.TXT',
    'SET.TXT',
    'BANK.TXT',
    'CHAN.TXT',
  ]);
  const channels = await imageFile(plan.id, 'CHAN.TXT');
  expect(channels.name).toBe('CHAN.TXT');
  expect(Buffer.from(channels.file as Uint8Array).toString('base64')).toBe(files[3]!.base64);
  await expect(imageFile(plan.id, '../etc/passwd')).rejects.toMatchObject({ status: 404 });
});

test('files without a checksum are proven by the list of their card, or by nothing', async () => {
  const ident: Ident = {
    ...{ model: 'PLOVERF5', serial: 'OR520144', firmware: '1.12', region: 3, imageBytes: bytesOf(ploverF5) },
    ...{ halfWritten: false, battery: null, module: 0 },
  };
  const written = cardFiles(memoryOf('plover-1'), ident, ploverF5, 'RADIO');
  // CARD.TXT is written first and last; the last is what is on the card.
  const onCard = [...new Map(written.map((one) => [one.name, one])).values()];
  const withList = onCard.map(({ name, bytes }) => file(name, bytes));
  const without = withList.filter(({ name }) => name !== 'CARD.TXT');
  expect(withList).toHaveLength(without.length + 1);
  expect((await openImage({ files: withList, rescue: false })).proven).toBe(true);
  expect((await openImage({ files: without, rescue: false })).proven).toBe(false);
  expect((await openImage({ files: [file('x.bin', memoryOf('gannet-1'))], rescue: false })).proven).toBe(
    true,
  );
  // One bit of a name: a letter is another letter, and every line still reads.
  const spoilt = onCard.map(({ name, bytes }) => {
    const copy = bytes.slice();
    if (name === 'CHAN.TXT') copy[copy.indexOf(0x4b)]! ^= 1;
    return file(name, copy);
  });
  await expect(openImage({ files: spoilt, rescue: false })).rejects.toMatchObject({ kind: 'image-damaged' });
  const unlisted = spoilt.filter(({ name }) => name !== 'CARD.TXT');
  expect((await openImage({ files: unlisted, rescue: false })).proven).toBe(false);
});

test('what is wrong is said; what can be read is opened when it is asked for, and never saved upon', async () => {
  const memory = memoryOf('petrel-1');
  const damaged = memory.slice();
  damaged[0x300] = damaged[0x300]! ^ 1;
  const files = [file('petrel.img', damaged)];
  await expect(openImage({ files, rescue: false })).rejects.toMatchObject({
    kind: 'image-damaged',
    detail: expect.stringContaining('checksum does not hold'),
  });
  const { plan } = await openImage({ files, rescue: true });
  expect(plan.channels.length).toBeGreaterThan(3);
  await expect(imageFile(plan.id)).rejects.toMatchObject({ kind: 'no-copy' });
  await expect(
    openImage({ files: [file('tern-p2.bin', new Uint8Array(8192))], rescue: true }),
  ).rejects.toMatchObject({ kind: 'image-unknown' });
});

test('a plan of no image can be saved as a card, which holds nothing of a unit, and as no other image', async () => {
  const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
  const plover = await createPlan({ name: 'New', modelId: 'plover-f5', owner });
  expect((await imageFiles(plover.plan.id)).files).toHaveLength(4);
  const tern = await createPlan({ name: 'New', modelId: 'tern-p2', owner });
  await expect(imageFiles(tern.plan.id)).rejects.toMatchObject({ kind: 'no-copy' });
});

test('a setting that the radio cannot stand at is refused with a sentence', async () => {
  const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
  const { plan } = await createPlan({ name: 'Base', modelId: 'petrel-hf9', owner });
  const set = (shift2m: number) =>
    editPlan(plan.id, 1, { name: 'describe', set: { settings: { 'petrel-hf9': { shift2m } } } });
  await expect(set(600_500)).rejects.toMatchObject({
    kind: 'edit-refused',
    detail: expect.stringContaining('Shift on 2 m cannot be “600.5 kHz”'),
  });
  expect((await set(1_600_000)).revision).toBe(2);
});
