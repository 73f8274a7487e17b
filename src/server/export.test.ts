import { OUT_FORMATS } from '../core/interchange';
import type { ChannelId, Plan, PlanId } from '../core/plan';
import { OPEN } from '../core/radio';
import { placing } from '../core/samples.test.kit';
import { dataFolder } from './data-folder.test.kit';
import { exportPlan, exportStations, fileName, planJsonSchema } from './export';
import { importFile } from './import';
import { createPlan, getPlan } from './plans';
import { editPlan } from './revisions';
import { keepStations } from './stations';

test.each([
  ['Ketterby weekend', 'ketterby-weekend.csv'],
  ['../../etc/passwd', 'etc-passwd.csv'],
  ['Höhe "9"', 'ho-he-9.csv'],
  ['…', 'plan.csv'],
])('the plan “%s” is exported as %s', (name, file) => expect(fileName(name, 'csv')).toBe(file));

dataFolder('export');
const base64 = (file: string | Uint8Array) => Buffer.from(file).toString('base64');
const channelsOf = async (id: PlanId) =>
  (await getPlan(id)).plan.channels.map(({ id: _, fitted: _fitted, ...rest }) => rest);

test('a plan that is taken out and in again is the same plan: whole by its own format, its channels by rows', async () => {
  const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
  const { plan } = await createPlan({ name: 'Out and in', modelId: 'tern-p2', owner });
  await editPlan(plan.id, 1, placing(0, 1, 7));
  const before = await channelsOf(plan.id);
  for (const format of OUT_FORMATS.filter((one) => one !== 'gpx')) {
    const { file, name } = await exportPlan(plan.id, format);
    expect(name).toBe(`out-and-in.${format}`);
    const answer = await importFile({
      base64: base64(file),
      slots: 'as in the file',
      ...(format !== 'json' && { modelId: 'tern-p2', name: `By ${format}` }),
    });
    expect({ format, channels: await channelsOf(answer.plan) }).toEqual({ format, channels: before });
  }
  const [first] = (await getPlan(plan.id)).plan.channels;
  const some = await exportPlan(plan.id, 'json', [first!.id]);
  expect((JSON.parse(some.file as string) as Plan).channels).toHaveLength(1);
  await expect(exportPlan(plan.id, 'csv', ['ch_nothing' as ChannelId])).rejects.toMatchObject({
    status: 422,
  });
});

test('what the schema of the plan’s own format says holds for what goes out', async () => {
  const schema = planJsonSchema();
  expect(schema).toMatchObject({ type: 'object', properties: { channels: { type: 'array' } } });
  expect(schema.$schema).toMatch(/2020-12/);
});

test('a file without a plan to go into wants a radio, unless it is a plan', async () => {
  await expect(
    importFile({ base64: base64('Name,Receive\nHill,145.6'), slots: 'next free' }),
  ).rejects.toMatchObject({ kind: 'no-model' });
});

test('stations go out as the channels that they would become, in the order that was asked for', async () => {
  const entry = (ref: string, output: number) => ({
    ...{ ref, call: 'Q7UL', site: `Site ${ref}`, island: 'Ullsmere', service: 'amateur', output },
    ...{ input: output - 600_000, access: OPEN, mode: 'FM' as const, lat: 52, lon: -30, height: 100 },
    ...{ onAir: true, constant: false, encrypted: false, updated: '2026-01-01' },
  });
  await keepStations('relay-register', [entry('a', 145_600_000), entry('b', 145_700_000)], new Date());
  const keys = ['b', 'gone', 'a'].map((ref) => ({ source: 'relay-register', ref }));
  const { file, name } = await exportStations(keys, 'csv', 'Around Ketterby');
  expect(name).toBe('around-ketterby.csv');
  const lines = new TextDecoder().decode(file as Uint8Array).split('\r\n');
  expect(lines).toHaveLength(3);
  expect(lines[1]).toMatch(/^Site b,145\.700,145\.100,/);
  // As a plan it opens here, for a radio that there is.
  const whole = await exportStations(keys, 'json', 'Around Ketterby');
  const { plan } = await importFile({ base64: base64(whole.file), slots: 'as in the file' });
  expect((await channelsOf(plan)).map(({ name: called }) => called)).toEqual(['Site b', 'Site a']);
});
