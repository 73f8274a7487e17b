import * as fc from '@/core/property.test.kit';
import { check, countFindings } from '@/core/check';
import { wiredIn } from '@/core/check/wired.test.kit';
import { fit } from '@/core/fit';
import { modelById } from '@/core/models';
import { applyEdit, type Plan } from '@/core/plan';
import { anyEditOn } from '@/core/plan/edit.test.kit';
import { anyPlan, channel, plan, renaming } from '@/core/samples.test.kit';
import { createPlanWork, type WorkAnswer, type WorkMessage } from '@/workers/plan-work';
import { createPlanViews } from './plan-views';

/** A worker that answers when it is told to; what goes to and fro is copied as a real one does it. */
function desk() {
  const work = createPlanWork();
  const inbox: WorkMessage[] = [];
  const posted: WorkMessage[] = [];
  const store = createPlanViews((message) => {
    inbox.push(structuredClone(message));
    posted.push(message);
  });
  const step = () => {
    const message = inbox.shift();
    if (message) for (const answer of work(message)) store.hear(structuredClone(answer) as WorkAnswer);
    return message !== undefined;
  };
  return { store, posted, step, settle: () => void [...Array(99)].every(step) };
}

/** What a page must show of a plan, worked out in one go. */
function whole(p: Plan) {
  const model = modelById(p.modelId)!;
  const fitted = fit(p, model);
  return {
    fitted: fitted.channels,
    findings: check(p, model, fitted),
    changes: fitted.changes,
    leftOut: fitted.leftOut,
  };
}

test('whatever is edited, and whenever the worker comes to it, what is shown in the end is what the plan comes to', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      anyPlan,
      fc.array(fc.tuple(fc.integer(), fc.constantFrom(0, 0, 1, 2, 3)), { maxLength: 8 }),
      (first, luck) => {
        const { store, posted, step, settle } = desk();
        let now = first;
        store.show(now);
        store.open();
        for (const [seed, steps] of luck) {
          const [edit] = fc.sample(anyEditOn(now), { numRuns: 1, seed });
          const result = applyEdit(now, edit!);
          if (!result.ok || !modelById(result.value.modelId)) continue;
          store.show((now = result.value));
          for (let n = 0; n < steps; n++) step();
        }
        settle();
        const { plan: shown, of, findings, counts, fitCount } = store.get();
        expect(shown).toEqual(now);
        const wanted = whole(structuredClone(now));
        expect(now.channels.flatMap(({ id }) => of.get(id)?.fitted ?? [])).toEqual(wanted.fitted);
        expect(findings()).toEqual(wanted.findings.filter(({ kind }) => kind !== 'plan'));
        expect(counts).toEqual(countFindings(wanted.findings));
        expect(store.get().besides).toEqual(wiredIn(now, modelById(now.modelId)!));
        expect(fitCount).toBe(wanted.changes.length + wanted.leftOut.length);
        expect(now.channels.filter(({ id }) => of.get(id)!.leftOut.length > 0)).toHaveLength(
          wanted.leftOut.length,
        );
        expect(of.size).toBe(now.channels.length);
        reached.count('came together', posted.length < luck.length);
        reached.count('findings', counts.length > 0);
      },
    ),
    { numRuns: 150 },
  );
  reached.expectShare('findings', 0.5);
  reached.expectShare('came together', 0.1);
});

const weather = plan([162_400_000, 162_425_000, 145_500_000].map((rx, n) => channel(n + 1, rx)));

test('a changed cell sends that channel alone to and fro', () => {
  const { store, posted, settle } = desk();
  const heard: WorkAnswer[] = [];
  const { hear } = store;
  store.hear = (answer) => (heard.push(answer), hear(answer));
  store.show(weather);
  store.open();
  settle();
  const changed = applyEdit(weather, renaming(3, 'Calling'));
  store.show(changed.ok ? changed.value : weather);
  settle();
  expect(posted.at(-1)).toMatchObject({
    kind: 'change',
    difference: { records: { channel: { put: { length: 1 } } } },
  });
  expect(heard.at(-1)).toMatchObject({ kind: 'shown', put: { length: 1 }, gone: [] });
  // the same plan again is nothing to work out
  const before = posted.length;
  store.show(changed.ok ? changed.value : weather);
  settle();
  expect(posted).toHaveLength(before);
});

test('ways out are had when they are asked for: of one finding, and of a group', async () => {
  const { store, settle } = desk();
  store.show(weather);
  store.open();
  settle();
  const [finding] = store.get().findings();
  const one = store.ways(finding!);
  const group = store.ways({ group: `${finding!.severity} ${finding!.rule}` });
  const nobody = store.ways({ ...finding!, rule: 'no-such-rule' });
  settle();
  expect((await one).mends.map(({ label }) => label)).toEqual(['Make it listen only']);
  expect(await group).toMatchObject({ together: { count: 2, label: 'Make it listen only' } });
  expect(await nobody).toMatchObject({ mends: [], together: null });
  expect(store.get().lookedFor['out-of-range']).toBe('frequencies that the radio cannot tune');
});

test('what is shown is counted; what was shown before says what is left of it', () => {
  const { store, settle } = desk();
  expect([store.get().number, store.get().findings()]).toEqual([0, []]);
  store.show(weather);
  store.open();
  settle();
  const before = store.get();
  const gone = before.plan!.channels[0]!.id;
  const less = applyEdit(weather, { name: 'remove', ids: [gone] });
  store.show(less.ok ? less.value : weather);
  settle();
  expect(store.get().number).toBe(before.number + 1);
  // asked late, when one of its channels is there no more
  const left = before.findings();
  expect(left.length).toBeGreaterThan(0);
  expect(left.some(({ id }) => id === gone)).toBe(false);
});

test('what a directory knows nearby is said when it comes, before or after the plan', () => {
  const near = [{ name: 'Norrast', output: 145_500_000, input: 144_900_000, lat: 52, lon: -30 }];
  const source = { directory: 'd', entry: 'e', service: 'amateur', lat: 52, lon: -30 };
  const p = plan([channel(1, 145_500_000, { source })]);
  for (const early of [true, false]) {
    const { store, settle } = desk();
    if (early) store.tell(near);
    store.show(p);
    store.open();
    settle();
    if (!early) store.tell(near);
    settle();
    expect(store.get().counts.map(({ text }) => text)).toEqual(['1 caution']);
  }
});

describe('a worker that breaks down', () => {
  /** Workers that break at messages of a kind, as many of them as are said. */
  function fragile(breaksAt: WorkMessage['kind'], times: number) {
    let begun = 0;
    let work = createPlanWork();
    const store = createPlanViews((message) => inbox.push(structuredClone(message)));
    const inbox: WorkMessage[] = [];
    let plan = weather;
    const begin = () => {
      begun++;
      work = createPlanWork();
      inbox.length = 0;
      store.show(plan);
      store.open();
    };
    const settle = () => {
      for (let message = inbox.shift(); message; message = inbox.shift()) {
        if (message.kind === breaksAt && times-- > 0) {
          inbox.length = 0;
          if (store.broke()) begin();
          continue;
        }
        for (const answer of work(message)) store.hear(structuredClone(answer) as WorkAnswer);
      }
    };
    const show = (next: Plan) => {
      plan = next;
      store.show(next);
    };
    return { store, begin, settle, show, begun: () => begun };
  }
  const edited = (p: Plan) => {
    const changed = applyEdit(p, renaming(3, 'Calling'));
    return changed.ok ? changed.value : p;
  };

  test('is followed by another one, which is told all that is known, neighbours too', () => {
    const { store, begin, settle, show, begun } = fragile('change', 1);
    begin();
    store.tell([{ name: 'Hill', output: 145_500_000, input: 144_900_000 }]);
    settle();
    const before = store.get().findings();
    show(edited(weather));
    settle();
    expect(begun()).toBe(2);
    expect(store.get()).toMatchObject({ plan: edited(weather), trouble: null });
    expect(store.get().findings()).toEqual(before);
    expect([...store.get().of.keys()]).toEqual(weather.channels.map(({ id }) => id));
  });

  test('again and again is said, once, and what was shown stays; another plan is worth a try', () => {
    const { store, begin, settle, begun } = fragile('open', 3);
    begin();
    settle();
    expect(begun()).toBe(3);
    expect(store.get()).toMatchObject({ plan: null, trouble: expect.stringContaining('next change') });
    expect([weather, edited(weather), edited(weather)].map(store.show)).toEqual([false, true, true]);
    begin();
    settle();
    expect(store.get()).toMatchObject({ plan: weather, trouble: null });
    expect(store.show(edited(weather))).toBe(false);
  });

  test.each(['open', 'verify', 'neighbours', 'mends', 'change'] as const)(
    'whenever it is told of “%s” is begun three times for a plan and no more, whatever it answered before',
    (kind) => {
      const { store, begin, settle, show, begun } = fragile(kind, 50);
      begin();
      store.tell([{ name: 'Hill', output: 145_500_000, input: 144_900_000 }]);
      settle();
      show(edited(weather));
      settle();
      for (let n = 0; n < 9; n++) {
        void store.ways({ group: 'stop band-edge' });
        settle();
      }
      // of the plan as it was opened, and as it was changed
      expect(begun()).toBeLessThanOrEqual(6);
    },
  );

  test('answers nothing any more: ways out that were asked for are none', async () => {
    const { store, begin, settle } = fragile('mends', 1);
    begin();
    settle();
    const asked = store.ways({ group: 'stop band-edge' });
    settle();
    expect(await asked).toEqual({ mends: [], together: null });
    store.broke();
    expect(await store.ways({ group: 'stop band-edge' })).toEqual({ mends: [], together: null });
  });
});

test('what was opened and is no plan is said, and stays said', () => {
  const { store, settle } = desk();
  const [first, ...rest] = weather.channels;
  store.show({ ...weather, channels: [{ ...first!, name: 'x'.repeat(33) }, ...rest] });
  store.open();
  settle();
  expect(store.get().trouble).toContain('channels.0.name');
  store.show({ ...weather, name: 'Other' });
  settle();
  expect(store.get().trouble).toContain('channels.0.name');
  store.show(weather);
  store.open();
  settle();
  expect(store.get().trouble).toBeNull();
});
