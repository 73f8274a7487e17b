import { spawnSync } from 'node:child_process';
import { startPostgres } from '../e2e/postgres';
import { makeWorld } from '../e2e/world';
async function main() {
  const pg = await startPostgres();
  const world = await makeWorld({ env: { DATABASE_URL: pg.url, VERIDON_DEMO: '' } });
  const rows = Array.from({ length: 9000 }, (_, n) => `C${n},${(145 + (n % 100) / 80).toFixed(4)}`).join('\n');
  const made = await world.api<any>('/api/import', 'POST', { base64: Buffer.from(`Name,Receive\n${rows}`).toString('base64'), modelId: 'osprey-d7', slots: 'next free', name: 'Big' });
  const id = made.body.plan;
  const sql = (q: string) => { const r = spawnSync('/usr/lib/postgresql/15/bin/psql', [pg.url, '-c', q], { encoding: 'utf8' }); console.log(q.slice(0, 50), r.stdout.trim().slice(0, 80), r.stderr.slice(0, 200)); };
  sql(`insert into plans select (jsonb_populate_record(p, jsonb_build_object('id', 'pl_many' || lpad(n::text, 8, '0'), 'name', 'Many ' || n, 'updated_at', now() - n * interval '1 minute'))).* from plans p, generate_series(1, 1270) n where id = '${id}'`);
  sql(`insert into records (plan_id, kind, id, position, data) select 'pl_many' || lpad(n::text, 8, '0'), kind, id, position, data from records, generate_series(1, 200) n where plan_id = '${id}'`);
  sql(`insert into records (plan_id, kind, id, position, data) select 'pl_many' || lpad(n::text, 8, '0'), kind, id, position, data from (select * from records where plan_id = '${id}' limit 100) r, generate_series(201, 1270) n`);
  await world.api('/api/health').catch(() => {}); await new Promise((g) => setTimeout(g, 500));
  const time = async (path: string) => { const b = performance.now(); const r = await world.api<any>(path); return [Math.round(performance.now() - b), r.status, r.body.plans?.length, r.body.pending ?? r.body.plans?.filter((p: any) => p.pending).length]; };
  const { body } = await world.api<any>(`/api/plans/${id}`);
  const ch = body.plan.channels[0].id; let base = body.revision;
  let stop = false; const edits: number[] = [];
  const editing = (async () => { while (!stop) { const b = performance.now(); const r = await world.api<any>(`/api/plans/${id}/edits`, 'POST', { base, edit: { name: 'change', changes: [{ id: ch, set: { name: `N${base}` } }] } }); base = r.body.revision ?? base; edits.push(performance.now() - b); await new Promise((g) => setTimeout(g, 100)); } })();
  for (const q of ['?count=50', '?count=50', '?count=200', '?count=50&from=50', '?count=50&from=1200']) console.log(q, await time('/api/plans' + q));
  const b = performance.now();
  for (;;) { const [ms, , , pending] = await time('/api/plans?count=200'); if (!pending) { console.log('200 worked out after s', Math.round((performance.now() - b) / 1000), 'answer', ms); break; } await new Promise((g) => setTimeout(g, 2000)); if (performance.now() - b > 240000) { console.log('still pending', pending, ms); break; } }
  for (const q of ['?count=50', '?count=200', '?count=50&from=1200']) console.log(q, await time('/api/plans' + q));
  console.log('plan-names', await time('/api/plan-names'));
  stop = true; await editing; edits.sort((x, y) => x - y);
  console.log('edits', edits.length, '95th', Math.round(edits[Math.floor(edits.length * 0.95)]!), 'worst', Math.round(edits.at(-1)!));
  await world.close(); await pg.close();
}
main().catch((e) => { console.error(e); process.exit(1); }).then(() => process.exit(0));
