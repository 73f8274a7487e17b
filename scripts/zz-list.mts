import { join } from 'node:path';
import { AS_USUAL, makeWorld } from '../e2e/world';
import { ask, post } from '../attack/figures';
process.env.VERIDON_RESERVE_MB = '1';
const PLANS = Number(process.argv[2] ?? 300), CHANNELS = 9000;
const world = await makeWorld({ env: { ...AS_USUAL, VERIDON_RESERVE_MB: '1' } });
const table = Buffer.from(`Name,Receive\n${Array.from({ length: CHANNELS }, (_, n) => `R${n},${(430 + (n % 800) / 80).toFixed(4)}`).join('\n')}`).toString('base64');
const a = await ask(`${world.url}/api/import`, post({ name: 'Nine thousand', base64: table, modelId: 'osprey-d7', slots: 'next free' }, { 'Idempotency-Key': 'list.1' }), 60000);
const id = (a.body as any).plan;
await world.kill('SIGTERM');
process.env.VERIDON_DATA_DIR = join(world.folder, 'data');
const { openDatabase } = await import('../src/db');
const { sql } = await import('drizzle-orm');
const { database, close } = await openDatabase();
let t = performance.now();
for (let n = 0; n < PLANS; n += 20)
  await database.execute(sql`with made as (insert into plans (id,name,model_id,head,bytes,revision,created_at,updated_at) select 'pl_many' || lpad(g::text, 5, '0'), 'Plan ' || g, model_id, head, bytes, 1, now(), now() from plans, generate_series(${n}::int, ${n + 19}::int) g where id = ${id} returning id) insert into records (plan_id,kind,id,position,data) select made.id, kind, r.id, position, data from made, records r where r.plan_id = ${id}`);
console.log('filled', PLANS, 'plans in', Math.round((performance.now() - t) / 1000), 's');
await close();
await world.start();
const list = async (q: string) => { const r = await ask(`${world.url}/api/plans${q}`, {}, 60000); return `${Math.round(r.ms)} ms ${(r.body as any).total} ${(r.body as any).plans.filter((p: any) => p.pending).length} pending`; };
console.log('first page', await list('?count=50'));
console.log('again', await list('?count=50'));
console.log('page of 200', await list('?count=200&from=100'));
const edits: number[] = [];
for (let n = 0; n < 60; n++) {
  const p = await ask(`${world.url}/api/plans/pl_ketterbyweekend`);
  const e = await ask(`${world.url}/api/plans/pl_ketterbyweekend/edits`, post({ base: (p.body as any).revision, edit: { name: 'describe', set: { name: `T ${n}` } } }, { 'Idempotency-Key': `list.${n + 10}` }));
  edits.push(p.ms, e.ms);
  await new Promise((g) => setTimeout(g, 100));
}
edits.sort((x, y) => x - y);
console.log('looks and edits meanwhile, 95th and longest', Math.round(edits[Math.floor(edits.length * 0.95)]!), Math.round(edits.at(-1)!));
console.log('names', Math.round((await ask(`${world.url}/api/plan-names`, {}, 60000)).ms), 'ms');
for (let n = 0; n < 12; n++) { await new Promise((g) => setTimeout(g, 5000)); const l = await list('?count=200'); console.log(l); if (l.includes(' 0 pending')) break; }
console.log('list', await list('?count=200'), await list('?count=50'));
await world.close(); process.exit(0);
