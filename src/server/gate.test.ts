import { createServer, type Server } from 'node:http';
import { digital, groupId, scanId } from '../core/digital.test.kit';
import { kestrelC1 } from '../core/models/kestrel-c1';
import { channel } from '../core/samples.test.kit';
import { HANG_MS } from '../core/until.test.kit';
import { newMemory, UNITS } from '../sim/bench/units';
import { previewWrite } from './bench';
import { sealCopy } from './copies';
import { dataFolder } from './data-folder.test.kit';
import { areaOf, neighboursOf } from './neighbours';
import { checkPlan, createPlan } from './plans';
import { seeRadio } from './radios';

/** The last gate before a write says whatever Check says of the plan, the repeaters near by included. */

let register: Server;
dataFolder('gate', {
  async before() {
    const row = {
      ...{ ref: 'RR-1', call: 'Q7ABC', site: 'Hill', island: 'Ullsmere', service: 'amateur', mode: 'FM' },
      ...{ output_mhz: '438.6500', input_mhz: '431.0500', access: '88.5', lat: 52.06, lon: -29.84 },
      ...{ height_m: 50, on_air: true, constant: false, updated: '2026-01-01' },
    };
    register = createServer((_, response) =>
      response.end(JSON.stringify({ page: 1, pages: 1, total: 1, entries: [row] })),
    );
    await new Promise<void>((resolve) => register.listen(0, '127.0.0.1', resolve));
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${(register.address() as { port: number }).port}`;
    process.env.VERIDON_NEIGHBOUR_PATIENCE_MS = String(HANG_MS);
  },
  after: () => void register.close(),
});

test('each stop and each caution of Check stands before a write', async () => {
  const unit = UNITS.find(({ id }) => id === 'kestrel-2')!;
  const radioId = await seeRadio(
    {
      ...{ model: 'KESTRELC', serial: unit.serial, firmware: unit.firmware, region: 3, imageBytes: 65_536 },
      ...{ halfWritten: false, battery: null, module: 0 },
    },
    kestrelC1,
  );
  await sealCopy(radioId, kestrelC1, newMemory(unit), 'read');
  const near = { directory: 'd', entry: 'e', service: 'amateur', lat: 52.06, lon: -29.84 };
  const { plan } = await createPlan(
    {
      ...{ name: 'Everything', modelId: 'kestrel-c1' },
      owner: { callSign: '', region: 'orrin', grade: 'not stated', strict: false },
    },
    {
      channels: [
        // On a repeater that the register alone knows.
        channel(1, 438_650_000, { name: 'Near', source: near }),
        digital(2, { talkgroup: null }),
        digital(3, { talkgroup: groupId(1), scanList: scanId(1) }),
        digital(4, { access: { kind: 'analogue', send: null, expect: null } }),
        channel(2000, 433_500_000, { name: 'No slot' }),
      ],
      talkgroups: [{ id: groupId(1), name: 'Isles', number: 100, call: 'group' }],
      scanLists: [
        {
          ...{ id: scanId(1), name: 'Silent', members: [], first: null, second: null },
          ...{ answers: 'heard' as const, startsItself: false },
        },
      ],
    },
  );
  const neighbours = await neighboursOf(areaOf(plan));
  const { findings } = await checkPlan(plan.id, undefined, neighbours);
  const stopped = new Set(findings.filter(({ severity }) => severity === 'stop').map(({ id }) => id));
  const cautions = findings.filter(({ id, severity }) => severity === 'caution' && !stopped.has(id));
  const preview = await previewWrite(radioId, plan.id);
  expect(preview.heldBack.map(({ id }) => id).sort()).toEqual([...stopped].sort());
  expect(preview.cautions.map(({ text }) => text).sort()).toEqual(cautions.map(({ text }) => text).sort());
  // All kinds are there: of a channel, of the neighbourhood, of the wiring, of the plan as a whole.
  const rules = findings.map(({ rule }) => rule);
  for (const rule of [
    ...['over-repeater', 'digital-without-talkgroup', 'digital-without-access'],
    ...['slot-out-of-range', 'grade-not-stated', 'digital-without-own-id', 'scan-list-empty'],
  ])
    expect(rules).toContain(rule);
});
