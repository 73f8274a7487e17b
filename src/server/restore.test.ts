import { asc, sql } from 'drizzle-orm';
import { ternP2 } from '../core/models/tern-p2';
import { IDENT } from '../core/samples.test.kit';
import { jobs, openDatabase, radios } from '../db';
import { backupFile, makeBackup } from './backup';
import { dataFolder } from './data-folder.test.kit';
import { seeRadio } from './radios';
import { restoreBackup } from './restore';

/** Backups of tables that had fewer rules than today's. */

dataFolder('restore');

test('of several jobs of one radio that were under way in an older backup one is restored as such', async () => {
  const { database } = await openDatabase();
  const [one, other] = [
    await seeRadio(IDENT, ternP2),
    await seeRadio({ ...IDENT, serial: 'OR777001' }, ternP2),
  ];
  await database.execute(sql`drop index jobs_one_for_a_radio`);
  const job = { kind: 'read' as const, modelId: 'tern-p2', state: 'running' as const, message: 'Reading.' };
  await database.insert(jobs).values([
    { id: 'jb_1', radioId: one, ...job },
    { id: 'jb_2', radioId: one, ...job },
    { id: 'jb_3', radioId: other, ...job },
    { id: 'jb_4', radioId: one, ...job, state: 'done' },
  ]);
  const file = (await backupFile((await makeBackup('request')).name))!;
  await database.delete(jobs);
  await database.delete(radios);
  await database.execute(
    sql`create unique index jobs_one_for_a_radio on jobs (radio_id) where state = 'running'`,
  );
  expect(await restoreBackup(file)).toMatchObject({ ok: true });
  const rows = await database.select({ id: jobs.id, state: jobs.state }).from(jobs).orderBy(asc(jobs.id));
  expect(rows.map(({ id, state }) => `${id} ${state}`)).toEqual([
    ...['jb_1 running', 'jb_2 failed', 'jb_3 running', 'jb_4 done'],
  ]);
});
