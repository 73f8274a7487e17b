import { channel, plan } from '../samples.test.kit';
import { atOnce, type Stepwise } from '../stepwise';
import {
  applyEdit,
  editSchema,
  inverseOf,
  outcomeFault,
  outcomeFaultInSteps,
  readDocument,
  readingDocument,
  readingEdit,
  type Channel,
} from '.';

/** What takes long on a large plan is done in steps, and comes to the same. */

const large = plan(Array.from({ length: 3600 }, (_, n) => channel(n, 145_000_000 + n * 12_500)));

/** How often steps were left, and what they came to. */
function counted<T>(steps: Stepwise<T>): { value: T; left: number } {
  for (let left = 0; ; left++) {
    const { done, value } = steps.next();
    if (done) return { value, left };
  }
}

const change = (of: typeof large, set: (n: number) => Partial<Channel>) => {
  const done = applyEdit(of, {
    name: 'change',
    changes: of.channels.map(({ id }, n) => ({ id, set: set(n) })),
  });
  if (!done.ok) throw new Error(done.reason);
  return done.value;
};

test('a document is read in steps, and says the place of what is wrong', () => {
  const document = JSON.parse(JSON.stringify(large)) as { channels: { rx: unknown }[] };
  const { value, left } = counted(readingDocument(document));
  expect(value).toEqual({ ok: true, value: large });
  // At least one step for every hundred channels.
  expect(left).toBeGreaterThan(36);
  document.channels[3000]!.rx = 'often';
  expect(readDocument(document)).toEqual({
    ok: false,
    reason: 'Its document is no plan: channels.3000.rx is not what a plan holds there.',
  });
  const tooMany = { ...document, channels: Array.from({ length: 100_000 }, () => document.channels[0]) };
  expect(readDocument(tooMany)).toEqual({
    ok: false,
    reason: 'Its document is no plan: channels is not what a plan holds there.',
  });
});

test('what came of a change is looked at in steps', () => {
  const after = change(large, (n) => ({ name: `Name ${n}` }));
  const { value, left } = counted(outcomeFaultInSteps(large, after));
  expect([value, left > 36]).toEqual([null, true]);
  const broken = {
    ...after,
    channels: after.channels.map((one, n) => (n === 3500 ? { ...one, rx: -1 } : one)),
  };
  expect(outcomeFault(large, broken)).toContain('channels.3500.rx');
});

test('an edit out of a log is read in steps, as the schema reads it', () => {
  const after = change(large, (n) => ({ note: `Note ${n}` }));
  const inverse: unknown = JSON.parse(JSON.stringify(inverseOf(large, after)));
  const { value, left } = counted(readingEdit(inverse));
  expect(value).toEqual(editSchema.parse(inverse));
  expect(left).toBeGreaterThan(36);
  expect(applyEdit(after, value)).toEqual({ ok: true, value: large });
  const spoilt = structuredClone(inverse) as { records: { channel: { put: { rx: unknown }[] } } };
  spoilt.records.channel.put[3000]!.rx = 'often';
  expect(() => atOnce(readingEdit(spoilt))).toThrow();
  expect(() => atOnce(readingEdit({ name: 'no such edit' }))).toThrow();
});
