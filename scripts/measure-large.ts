import { largePlan, roomy } from '../demo/large-plan';
import { readRow } from '../src/core/directory';
import { check, mendsOf } from '../src/core/check';
import { fit } from '../src/core/fit';
import { modelById } from '../src/core/models';
import { applyEdit, outcomeFault, type Plan } from '../src/core/plan';
import { generateRegister } from '../src/sim/register/generate';
import { createPlanWork } from '../src/workers/plan-work';

/** Plans of 3,600 channels in the core: fit, check, an edit, the worker; from nothing and after one cell. */

const entries = generateRegister().flatMap((row) => {
  const read = readRow(row);
  return read.ok ? [read.value] : [];
});
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const timed = <T>(times: number[], run: () => T): T => {
  const began = performance.now();
  const value = run();
  times.push(performance.now() - began);
  return value;
};
const p2 = modelById('tern-p2')!;

for (const [what, bad, model] of [
  ['good, on a radio that holds it', false, roomy(p2)],
  ['bad, on a Tern P2', true, p2],
] as const) {
  const made = largePlan(entries, { bad });
  const [cold, fits, checks, cells, fitted, mends]: number[][] = [[], [], [], [], [], []] as number[][];
  for (let run = 0; run < 12; run++) {
    // Copies have nothing in common: nothing is remembered of them.
    let plan: Plan = structuredClone(made);
    timed(run === 0 ? cold! : fits!, () => fit(plan, model));
    const first = timed(run === 0 ? cold! : checks!, () => check(plan, model, fit(plan, model)));
    if (run === 0)
      console.log(`Large plan (${what}): ${plan.channels.length} channels, ${first.length} findings`);
    for (let n = 0; n < 4; n++) {
      const { id } = plan.channels[(run * 311 + n * 97) % plan.channels.length]!;
      const edited = applyEdit(plan, { name: 'change', changes: [{ id, set: { name: `Cell ${n}` } }] });
      if (!edited.ok) throw new Error(edited.reason);
      if (outcomeFault(plan, edited.value)) throw new Error('no plan');
      plan = edited.value;
      const held = timed(fitted!, () => fit(plan, model));
      timed(cells!, () => check(plan, model, held));
    }
    timed(mends!, () => mendsOf(first[0]!, plan, model));
  }
  console.log(
    `  fit from nothing ${median(fits!).toFixed(1)} ms, check from nothing ${median(checks!).toFixed(1)} ms (cold process: ${cold!.map((ms) => ms.toFixed(0)).join(' + ')} ms)`,
  );
  console.log(
    `  after one cell: fit ${median(fitted!).toFixed(2)} ms, check ${median(cells!).toFixed(2)} ms; mends of one finding ${median(mends!).toFixed(2)} ms`,
  );
}

const work = createPlanWork();
const plan = structuredClone(largePlan(entries, { bad: true }));
work({ kind: 'open', number: 1, plan });
const rounds: number[] = [];
for (let n = 0; n < 40; n++) {
  const before = plan.channels[n * 50]!;
  const put = [{ ...before, name: `Cell ${n}` }];
  timed(rounds, () =>
    work({ kind: 'change', number: n + 2, difference: { records: { channel: { put, remove: [] } } } }),
  );
}
console.log(`Worker, one cell of a bad plan of 3,600: ${median(rounds).toFixed(1)} ms`);
