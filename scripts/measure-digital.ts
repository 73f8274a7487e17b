import { check } from '../src/core/check';
import { fit } from '../src/core/fit';
import { decodeImage, encodeImage } from '../src/core/image';
import { blankImage } from '../src/core/format';
import { formatOf } from '../src/core/models/formats';
import { ospreyD7 } from '../src/core/models/osprey-d7';
import { addCounts, curveOf, packCounts, rank } from '../src/core/people';
import { applyEdit, type ChannelId, type Edit } from '../src/core/plan';
import { fullOsprey } from './full-osprey';

/** A full Osprey plan (3,600 channels, 200 zones, 8,000 talkgroups): worked out, changed, written; and a million key-ups ranked. */

const quantile = (values: number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]!;
const said = (values: number[]) =>
  `${quantile(values, 0.5).toFixed(1)} ms, 95th ${quantile(values, 0.95).toFixed(1)} ms (${values.length} runs)`;
const timed = <T>(run: () => T): [number, T] => {
  const began = performance.now();
  const value = run();
  return [performance.now() - began, value];
};

let plan = fullOsprey('pl_measure0001');
const fitted = fit(plan, ospreyD7);
console.log(
  `A full Osprey: ${fitted.channels.length} channels, ${fitted.zones.length} zones, ${fitted.talkgroups.length} talkgroups, ${fitted.receiveLists.length} receive lists, ${fitted.scanLists.length} scan lists held`,
);
const [cold] = timed(() => {
  const fresh = fullOsprey('pl_measure0002');
  const held = fit(fresh, ospreyD7);
  check(fresh, ospreyD7, held);
});
console.log(`Worked out for the first time, made and all: ${cold.toFixed(0)} ms`);
check(plan, ospreyD7, fitted);

/** One change after the other, as somebody types them: applied, fitted, checked. */
function changes(what: string, edit: (n: number) => Edit): void {
  const [applied, works]: [number[], number[]] = [[], []];
  for (let n = 0; n < 40; n++) {
    const [ms, result] = timed(() => applyEdit(plan, edit(n)));
    if (!result.ok) throw new Error(result.reason);
    applied.push(ms);
    plan = result.value;
    const [worked] = timed(() => check(plan, ospreyD7, fit(plan, ospreyD7)));
    works.push(worked);
  }
  console.log(`${what}: applied ${said(applied)}; fit and check ${said(works)}`);
}
const channelId = (n: number) => plan.channels[(n * 89) % plan.channels.length]!.id as ChannelId;
changes('A name is typed', (n) => ({
  name: 'change',
  changes: [{ id: channelId(n), set: { name: `Typed ${n}` } }],
}));
changes('A talkgroup is chosen', (n) => ({
  name: 'change',
  changes: [{ id: channelId(n), set: { talkgroup: plan.talkgroups[n]!.id } }],
}));
changes('A channel is put into a zone', (n) => ({
  name: 'change',
  kind: 'zone',
  changes: [{ id: plan.zones[n]!.id, set: { members: plan.zones[n]!.members.slice(1) } }],
}));
changes('A talkgroup is removed', (n) => ({
  name: 'remove',
  kind: 'talkgroup',
  ids: [plan.talkgroups[n]!.id],
}));

const base = blankImage(formatOf(ospreyD7));
const [encodes, decodes]: [number[], number[]] = [[], []];
for (let n = 0; n < 7; n++) {
  const [ms, image] = timed(() => encodeImage(fit(plan, ospreyD7), base, ospreyD7));
  encodes.push(ms);
  decodes.push(timed(() => decodeImage(image, ospreyD7))[0]);
}
console.log(`Its image of ${base.length} bytes: written ${said(encodes)}, read ${said(decodes)}`);

/** A million key-ups of 60,000 numbers, on ten talkgroups over ninety days, as they are kept. */
let seed = 7;
const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
const days = Array.from({ length: 900 }, () => {
  const counts = new Map<number, number>();
  for (let n = 0; n < 1112; n++) {
    const id = 1_000_000 + Math.floor(random() ** 3 * 60_000);
    counts.set(id, (counts.get(id) ?? 0) + 1);
  }
  return packCounts(counts);
});
const ranks = Array.from({ length: 9 }, () => {
  const [ms] = timed(() => {
    const counts = new Map<number, number>();
    for (const day of days) addCounts(counts, day);
    const { ranked } = rank(counts, { isPerson: (id) => id >= 1_000_000, pinned: new Set([1_000_001]) });
    return curveOf(ranked, 160);
  });
  return ms;
});
console.log(`A million key-ups ranked, as they are kept: ${said(ranks)}; wanted under 1,500 ms`);
