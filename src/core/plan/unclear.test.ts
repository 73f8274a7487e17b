import { check, contentToWrite } from '../check';
import { compareStates } from '../compare';
import { ternP2 } from '../models/tern-p2';
import { channel, id, plan, run, three } from '../samples.test.kit';
import { applyEdit, channelSetSchema, inverseOf, type Edit } from '.';

/** Texts that a cell keeps because nobody understood them: part of the plan, a stop, and gone with the value that puts the cell right. */

const marking = (n: number, unclear: object): Edit => ({
  name: 'change',
  changes: [{ id: id(n), set: { unclear } }],
});
const setting = (n: number, set: object): Edit => ({ name: 'change', changes: [{ id: id(n), set }] });
const unclearOf = (p: typeof three, n: number) => p.channels.find((one) => one.id === id(n))!.unclear;

test('a text that is not understood is kept with its channel, and nothing else of the channel changes', () => {
  const marked = run(three, marking(1, { access: 'loud' }));
  expect(unclearOf(marked, 1)).toEqual({ access: 'loud' });
  expect({ ...marked.channels[0], unclear: undefined }).toEqual({ ...three.channels[0], unclear: undefined });
});

test.each([
  ['name', { name: 'Hill' }],
  ['rx', { rx: 145_525_000 }],
  ['tx', { tx: null }],
  ['access', { access: { kind: 'analogue', send: null, expect: null } }],
  ['mode', { mode: 'NFM' }],
  ['power', { power: 1000 }],
  ['scan', { scan: false }],
])('setting %s puts its cell right, and leaves the texts of the others', (column, set) => {
  const texts = { name: 'n', rx: 'r', tx: 't', access: 'a', mode: 'm', power: 'p', scan: 's' };
  const after = run(run(three, marking(1, texts)), setting(1, set));
  const { [column as 'name']: _, ...others } = texts;
  expect(unclearOf(after, 1)).toEqual(others);
});

test('with the last text the field goes; naming the texts and a value at once, the texts stand', () => {
  const marked = run(three, marking(1, { tx: 'sideways' }));
  const after = run(marked, setting(1, { tx: null }));
  expect('unclear' in after.channels[0]!).toBe(false);
  expect(unclearOf(run(three, setting(1, { tx: null, unclear: { tx: 'up' } })), 1)).toEqual({ tx: 'up' });
});

test('undoing the mark gives the very plan back', () => {
  const marked = run(three, marking(1, { access: 'loud' }));
  expect(applyEdit(marked, inverseOf(three, marked))).toEqual({ ok: true, value: three });
});

test('it is a stop with a fix, and the channel is held back from a write', () => {
  const p = plan([
    channel(1, 145_500_000, { unclear: { access: 'loud', power: 'much' } }),
    channel(2, 145_525_000),
  ]);
  const found = check(p, ternP2).filter(({ rule }) => rule === 'not-understood');
  expect(found).toMatchObject([{ severity: 'stop', field: 'access', id: id(1) }]);
  expect(found[0]!.text).toContain('“loud” in access is not understood, nor is power.');
  const { channels, heldBack } = contentToWrite(p, ternP2);
  expect(channels.map(({ slot }) => slot)).toEqual([2]);
  expect(heldBack).toHaveLength(1);
  const fixed = run(p, marking(1, {}));
  expect(check(fixed, ternP2).some(({ rule }) => rule === 'not-understood')).toBe(false);
});

test('a comparison of two states of a plan names the texts', () => {
  const marked = run(three, marking(1, { access: 'loud' }));
  const [difference] = compareStates(three, marked).channels;
  expect(JSON.stringify(difference)).toContain('access “loud”');
});

test.each([
  ['a column that there is not', { slot: 'x' }],
  ['a text that is too long', { access: 'x'.repeat(61) }],
  ['something else than a text', { access: 5 }],
])('%s is refused', (_, unclear) => {
  expect(channelSetSchema.safeParse({ unclear }).success).toBe(false);
});
