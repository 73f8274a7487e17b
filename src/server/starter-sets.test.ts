import { channel } from '../core/samples.test.kit';
import { dataFolder } from './data-folder.test.kit';
import { dropSet, keepSet, listSets } from './starter-sets';

dataFolder('starter-sets');

test('sets of one’s own stand behind those of the region, as they were kept, until they are taken away', async () => {
  const ships = await listSets('itu2');
  expect(ships.some(({ kind }) => kind === 'own')).toBe(false);
  const {
    id: _,
    slot: _slot,
    list: _list,
    ...fields
  } = channel(3, 145_500_000, { name: '=Ours', note: 'a\nb' });
  const { id } = await keepSet('Ours', [fields]);
  const sets = await listSets('itu2');
  expect(sets.slice(0, -1)).toEqual(ships);
  expect(sets.at(-1)).toMatchObject({ id, kind: 'own', name: 'Ours', channels: [fields] });
  await dropSet(id);
  expect(await listSets('itu2')).toEqual(ships);
  await expect(dropSet(id)).rejects.toMatchObject({ status: 404 });
  // What ships cannot be taken away.
  await expect(dropSet('calling')).rejects.toMatchObject({ status: 404 });
});

test('a set that is sent again with its key is the same set, whoever is told of it', async () => {
  const { id: _, slot: _slot, list: _list, ...fields } = channel(3, 145_500_000);
  const asker = { key: 'setspage.1' };
  const before = (await listSets('itu2')).length;
  const [one, other] = await Promise.all([
    keepSet('Once', [fields], asker),
    keepSet('Once', [fields], asker),
  ]);
  expect(other).toEqual(one);
  expect(await keepSet('Once', [fields], asker)).toEqual(one);
  expect((await listSets('itu2')).length).toBe(before + 1);
  await expect(keepSet('Another', [fields], asker)).rejects.toMatchObject({ status: 422 });
});
