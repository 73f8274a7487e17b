import { dataFolder } from './data-folder.test.kit';
import { importFile } from './import';
import { createPlan, getPlan } from './plans';
import { stepBack } from './revisions';

/** Files by the interface: what is understood goes in as one edit, what is not is answered with its line. */

dataFolder('import');

const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const base64 = (text: string) => Buffer.from(text, 'utf8').toString('base64');

test('a spreadsheet with errors: the good rows go in, the bad ones are said, and it is one step', async () => {
  const { plan } = await createPlan({ name: 'From a file', modelId: 'tern-p2', owner });
  const rows = Array.from({ length: 160 }, (_, n) =>
    n === 7
      ? 'Broken;one four five;;'
      : n === 9
        ? 'Odd;145,600;-0,6;88,4x'
        : `R${n};${(144_000 + n * 12.5) / 1000}`.replace('.', ',') + ';;',
  );
  const answer = await importFile({
    plan: plan.id,
    slots: 'as in the file',
    base64: base64(['Name;Receive;Offset;Tone', ...rows].join('\r\n')),
  });
  // 159 channels, of which a Tern P2 has room for 150
  expect(answer).toMatchObject({
    revision: 2,
    placed: 150,
    over: 9,
    refused: [{ line: 9, reason: expect.stringMatching(/frequency/) as string }],
    odd: [{ channel: 'Odd', column: 'access', text: '88,4x' }],
  });
  const after = (await getPlan(plan.id)).plan;
  expect([after.channels.length, after.leftOver.length]).toEqual([150, 9]);
  await stepBack(plan.id, 'undo');
  expect((await getPlan(plan.id)).plan).toMatchObject({ channels: [], leftOver: [] });
});

test('licensed services come in as listen only, with who and where they are', async () => {
  const { plan } = await createPlan({ name: 'Services', modelId: 'tern-p2', owner });
  await importFile({
    plan: plan.id,
    slots: 'as in the file',
    base64: base64(
      'Station,Frequency,Service,Lat,Lon,Call\nRescue,168.0125,Public safety,52.06,-29.84,\nHill,145.600,amateur,,,Q7UL',
    ),
  });
  expect((await getPlan(plan.id)).plan.channels).toMatchObject([
    { name: 'Rescue', tx: null, source: { service: 'public safety', lat: 52.06, lon: -29.84 } },
    { name: 'Hill', tx: 145_600_000, source: { call: 'Q7UL', service: 'amateur' } },
  ]);
});

test('what is no file of stations changes nothing and says what it is', async () => {
  const { plan } = await createPlan({ name: 'Untouched', modelId: 'tern-p2', owner });
  const picture = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a]).toString('base64');
  await expect(importFile({ plan: plan.id, slots: 'as in the file', base64: picture })).rejects.toMatchObject(
    {
      kind: 'unreadable',
      message: expect.stringMatching(/a picture \(PNG\)/) as string,
    },
  );
  expect(
    await importFile({ plan: plan.id, slots: 'as in the file', base64: base64('Name,Receive\nA,x') }),
  ).toMatchObject({
    revision: 1,
    placed: 0,
    label: null,
    refused: [{ line: 2 }],
  });
});
