import { dataFolder } from './data-folder.test.kit';
import { NOBODY } from './once';
import { dropOwn, keepOwn, listOwn } from './own-directories';
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
