import { eq } from 'drizzle-orm';
import { until } from '../core/until.test.kit';
import { openDatabase, ownDirectories, stations } from '../db';
import { dataFolder } from './data-folder.test.kit';
import { instanceId } from './instance';
import { NOBODY } from './once';
import { closeBrokenOff, dropOwn, forgetOrphans, keepOwn, listOwn } from './own-directories';
import { placesKept } from './station-places';
import { listDirectories, searchStations } from './stations';

dataFolder('own-directories');
const base64 = (text: string) => Buffer.from(text).toString('base64');
const around = (sources: string[]) =>
  searchStations({
    where: { kind: 'around', point: { lat: 52, lon: -30 }, km: 50 },
    ...{ sources, ask: 'no' as const, most: 100 },
  });

test('a file is a directory: found by place as any other, without those that have none, until it is taken away', async () => {
  const kept = await keepOwn(
    {
      name: 'friend.csv',
      base64: base64(
        'Name,Receive,Shift,Tone,Lat,Lon\nHill,145.6125,-0.6,88.5,52.01,-30\nNowhere,145.7,-0.6,,,\nBad,x,,,52,-30\nFar,145.75,-0.6,,53,-30',
      ),
    },
    NOBODY,
    undefined,
    new Date('2026-05-01T12:00:00Z'),
  );
  expect(kept).toMatchObject({ kept: 2, placeless: 1, refused: [{ line: 4 }] });
  expect(await listOwn()).toEqual([{ id: kept.id, name: 'friend.csv' }]);
  expect((await listDirectories()).at(-1)).toMatchObject({
    id: kept.id,
    name: 'friend.csv',
    own: true,
    kept: 2,
  });
  const { candidates } = await around([kept.id]);
  expect(candidates.map(({ entry }) => entry)).toMatchObject([
    { site: 'Hill', output: 145_612_500, input: 145_012_500, height: 0, updated: '2026-05-01' },
  ]);
  await dropOwn(kept.id);
  expect((await around([kept.id])).candidates).toEqual([]);
  await expect(dropOwn(kept.id)).rejects.toMatchObject({ status: 404 });
  await expect(dropOwn('relay-register')).rejects.toMatchObject({ status: 404 });
});

test('one that is not whole is not there: not listed, not searched, and said once its process has ended', async () => {
  const { database } = await openDatabase();
  const loading = { id: 'own-half', name: 'half.csv', state: 'loading' as const };
  // This process loads it still.
  await database.insert(ownDirectories).values({ ...loading, instance: instanceId });
  const entry = { ref: 'row 1', site: 'Half' } as never;
  const at = { lat: 52, lon: -30, askedAt: new Date() };
  await database.insert(stations).values({ source: 'own-half', ref: 'row 1', entry, ...at });
  await placesKept([{ source: 'own-half', ref: 'row 1', lat: 52, lon: -30 }]);
  await closeBrokenOff();
  expect(await listOwn()).toEqual([]);
  expect((await listDirectories()).map(({ id }) => id)).not.toContain('own-half');
  expect((await around(['own-half'])).candidates).toEqual([]);
  await expect(dropOwn('own-half')).rejects.toMatchObject({ status: 404 });
  // The process that loaded it has ended.
  await database
    .update(ownDirectories)
    .set({ instance: 'in_another' })
    .where(eq(ownDirectories.id, 'own-half'));
  await closeBrokenOff();
  expect((await listDirectories()).at(-1)).toMatchObject({ id: 'own-half', brokenOff: true, kept: 0 });
  expect(await listOwn()).toEqual([]);
  expect(await database.select().from(stations).where(eq(stations.source, 'own-half'))).toEqual([]);
  // The same file, opened again, takes its place.
  const whole = await keepOwn({
    name: 'half.csv',
    base64: base64('Name,Receive,Lat,Lon\nHill,145.6,52,-30'),
  });
  expect((await listDirectories()).filter(({ own }) => own)).toMatchObject([
    { id: whole.id, name: 'half.csv', brokenOff: false, kept: 1 },
  ]);
  await dropOwn(whole.id);
});

test('stations of a directory that was deleted by a process killed halfway are removed at the next start', async () => {
  const { database } = await openDatabase();
  const left = await keepOwn({ name: 'left.csv', base64: base64('Name,Receive,Lat,Lon\nHill,145.6,52,-30') });
  const whole = await keepOwn({
    name: 'whole.csv',
    base64: base64('Name,Receive,Lat,Lon\nBay,145.7,52,-30'),
  });
  // The row is gone, and the process with it.
  await database.delete(ownDirectories).where(eq(ownDirectories.id, left.id));
  await forgetOrphans();
  const sources = (await database.select().from(stations)).map(({ source }) => source);
  expect(sources).toEqual([whole.id]);
  expect((await around([left.id, whole.id])).candidates).toHaveLength(1);
  await dropOwn(whole.id);
});

test('what is refused, or whose sender goes, leaves nothing', async () => {
  const { database } = await openDatabase();
  const rows = Array.from({ length: 3000 }, (_, n) => `R${n},145.6,52,-30`).join('\n');
  const file = { name: 'large.csv', base64: base64(`Name,Receive,Lat,Lon\n${rows}`) };
  const leave = new AbortController();
  const kept = keepOwn(file, NOBODY, leave.signal);
  await until('the first stations', async () => (await database.select().from(stations)).length > 0);
  leave.abort();
  await expect(kept).rejects.toMatchObject({ status: 499 });
  expect(await database.select().from(stations)).toEqual([]);
  expect(await database.select().from(ownDirectories)).toEqual([]);
});

test('a file without a place, or without a station, is refused with what it wants', async () => {
  await expect(keepOwn({ name: 'a', base64: base64('Name,Receive\nHill,145.6') })).rejects.toMatchObject({
    status: 422,
    message: expect.stringMatching(/latitude and longitude, or a locator/) as string,
  });
  await expect(keepOwn({ name: 'b', base64: base64('Name,Receive\nHill,x') })).rejects.toMatchObject({
    message: expect.stringMatching(/Line 2/) as string,
  });
  expect(await listOwn()).toEqual([]);
});
