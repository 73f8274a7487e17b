import * as fc from '../property.test.kit';
import { plan, run } from '../samples.test.kit';
import { applyEdit, inverseOf, rebaseEdit } from './edit';
import { editSchema, type Edit } from './edit.schema';
import type { Settings } from './plan.schema';

/** Settings of radios, changed one by one. */

const set = (settings: Extract<Edit, { name: 'set' }>['settings']): Edit => ({ name: 'set', settings });
const own = <V>(of: Readonly<Record<string, V>>, key: string) => new Map(Object.entries(of)).get(key);
const having = (settings: Settings) => ({ ...plan([]), settings });

test('one setting of a hundred is changed, and the log takes less than a kilobyte of it', () => {
  const hundred = Object.fromEntries(
    Array.from({ length: 100 }, (_, n) => [`setting${n}`, `value of setting ${n}, which is long`]),
  );
  const before = having({ 'osprey-d7': hundred, 'tern-p2': { beep: true } });
  const edit = set({ 'osprey-d7': { setting50: 'another' } });
  const after = run(before, edit);
  expect(after.settings).toEqual({ ...before.settings, 'osprey-d7': { ...hundred, setting50: 'another' } });
  const back = inverseOf(before, after);
  expect(back).toEqual({
    name: 'restore',
    records: {},
    settings: { 'osprey-d7': { setting50: 'value of setting 50, which is long' } },
  });
  expect(JSON.stringify(edit).length + JSON.stringify(back).length).toBeLessThan(1000);
  expect(run(after, back)).toEqual(before);
});

test('a new name takes nothing of the settings into the log', () => {
  const before = having({ 'tern-p2': { beep: true } });
  const after = run(before, { name: 'describe', set: { name: 'Other' } });
  expect(inverseOf(before, after)).toEqual({ name: 'restore', records: {}, head: { name: before.name } });
});

test('a setting that goes, and the last one of a model', () => {
  const before = having({ 'tern-p2': { beep: true, squelch: 3 } });
  const one = run(before, set({ 'tern-p2': { beep: null } }));
  expect(one.settings).toEqual({ 'tern-p2': { squelch: 3 } });
  const none = run(one, set({ 'tern-p2': { squelch: null } }));
  expect(none.settings).toEqual({});
  expect(run(none, inverseOf(one, none))).toEqual(one);
});

test('two people change two settings at once; of one setting the second is asked to look', () => {
  const base = having({ 'tern-p2': { beep: true, squelch: 3 } });
  const quiet = run(base, set({ 'tern-p2': { beep: false } }));
  const both = rebaseEdit(set({ 'tern-p2': { squelch: 5 } }), base, quiet);
  expect(both).toMatchObject({ ok: true, value: { settings: { 'tern-p2': { beep: false, squelch: 5 } } } });
  const other = run(base, set({ 'tern-p2': { squelch: 7 } }));
  expect(rebaseEdit(set({ 'tern-p2': { squelch: 5 } }), base, other)).toMatchObject({
    ok: false,
    reason: 'This setting of the radio was changed meanwhile. Look at it and try again.',
  });
  // Logs and programs of before set them all at once: then nothing of another's work is lost unseen.
  const all: Edit = { name: 'describe', set: { settings: { 'tern-p2': { beep: true, squelch: 5 } } } };
  expect(rebaseEdit(all, base, quiet)).toMatchObject({ ok: false });
  expect(rebaseEdit(all, base, base)).toMatchObject({ ok: true });
});

test('heads of older logs, which have all that a plan had then, are restored as they were', () => {
  const before = having({ 'tern-p2': { beep: true } });
  const restored = run(before, {
    name: 'restore',
    head: { ...{ name: 'Then', modelId: 'tern-p2', owner: before.owner }, settings: {}, abbreviations: null },
  });
  expect([restored.name, restored.settings]).toEqual(['Then', {}]);
});

test('what is set and taken back is as it was, whatever models and keys are called', () => {
  const name = fc.constantFrom('tern-p2', 'osprey-d7', 'beep', 'constructor', 'toString');
  const value = fc.oneof(fc.boolean(), fc.integer(), fc.constantFrom('', 'name'));
  const filled = <V>(values: fc.Arbitrary<V>) =>
    fc.dictionary(name, fc.dictionary(name, values, { minKeys: 1, maxKeys: 4 }), { maxKeys: 3 });
  const reached = fc.tally();
  fc.assert(
    fc.property(filled(value), filled(fc.option(value)), (settings, changes) => {
      const before = having(settings);
      const edit = set(changes);
      if (!editSchema.safeParse(edit).success) return;
      const after = applyEdit(before, edit);
      if (!after.ok) throw new Error(after.reason);
      for (const [model, values] of Object.entries(changes))
        for (const [key, wanted] of Object.entries(values))
          expect(own(own(after.value.settings, model) ?? {}, key) ?? null).toEqual(wanted);
      const back = inverseOf(before, after.value);
      reached.count('changed', back.settings !== undefined);
      expect(run(after.value, back)).toEqual(before);
    }),
  );
  reached.expectShare('changed', 0.5);
});
