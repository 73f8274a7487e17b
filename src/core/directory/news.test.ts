import { makeId, type Channel } from '../plan';
import { ternP2 } from '../models/tern-p2';
import { OPEN, type Access } from '../radio';
import { channel, plan, RANGE, run } from '../samples.test.kit';
import { allNews, leftKey, newsOf, type Entry, type News, type Standing } from '.';

const tone = (send: number, expect: number | null = null): Access => ({
  kind: 'analogue',
  send: { kind: 'tone', tone: send },
  expect: expect === null ? null : { kind: 'tone', tone: expect },
});
const entry = (ref: string, more: Partial<Entry> = {}): Entry => ({
  ...{ ref, call: 'Q7UL', site: `Site ${ref}`, island: 'Ullsmere', service: 'amateur' },
  ...{ output: 145_600_000, input: 145_000_000, access: tone(885), mode: 'FM' as const },
  ...{ lat: 52, lon: -30, height: 50, onAir: true, constant: false, encrypted: false, updated: '2026-03-01' },
  ...more,
});
const standing = (ref: string, more: Partial<Entry> = {}, gone = false): Standing => ({
  source: 'relay-register',
  entry: entry(ref, more),
  gone,
});
const placed = (slot: number, ref: string, more: Partial<Channel> = {}) =>
  channel(slot, 145_600_000, {
    ...{ name: `Site ${ref}`, tx: 145_000_000, access: tone(885) },
    source: { directory: 'relay-register', entry: ref, service: 'amateur', lat: 52, lon: -30 },
    ...more,
  });
let ids = 0;
const context = (all: Standing[], left: string[] = []) => ({
  standing: all,
  area: { lat: 52, lon: -30, km: 50 },
  since: '2026-02-01T10:00:00Z',
  left: new Set(left),
  wanted: { placement: 'next-free' as const, at: 0, range: RANGE, list: 0 },
  makeId: () => makeId('ch', new Uint8Array(12).fill(++ids)),
});
const told = (news: News[]) => news.map(({ kind, name, text }) => `${kind}: ${name}: ${text}`);

test('a new tone, another frequency, a move, off the air, gone, and new nearby: each in words', () => {
  const p = plan([
    placed(1, 'a'),
    placed(2, 'b'),
    placed(3, 'c'),
    placed(4, 'd'),
    placed(5, 'e'),
    placed(6, 'f'),
    channel(7, 145_500_000),
  ]);
  const news = newsOf(
    p,
    ternP2,
    context([
      standing('a', { access: tone(948) }),
      standing('b', { output: 145_650_000, input: 145_050_000 }),
      // 0.1 degrees of latitude are 11.1 km
      standing('c', { lat: 52.1, site: 'Far Hill' }),
      standing('d', { onAir: false }),
      standing('e', {}, true),
      standing('f'),
      standing('g', { output: 145_725_000, input: 145_125_000, site: 'New Hill' }),
    ]),
  );
  expect(told(news)).toEqual([
    'changed: Site a: access 88.5 → 94.8',
    'changed: Site b: receive 145.600 → 145.650',
    'moved: Site c: stands 11 km N of where it stood, at Far Hill',
    'off the air: Site d: is off the air',
    'gone: Site e: the directory has it no longer',
    'new: New Hill: 145.725, 0 km N',
  ]);
  // One by one, and all at once, come to the same.
  const oneByOne = news.reduce((now, { edit }) => run(now, edit), p);
  const atOnce = run(p, allNews(p, news, context([]).wanted)!);
  const shape = ({ channels, leftOver }: typeof p) => [
    channels.map(({ slot, rx, tx, access, source }) => ({ slot, rx, tx, access, lat: source?.lat })),
    leftOver.map(({ name }) => name).sort(),
  ];
  expect(shape(atOnce)).toEqual(shape(oneByOne));
  expect(atOnce.channels.find(({ slot }) => slot === 2)).toMatchObject({ rx: 145_650_000, tx: 145_050_000 });
  expect(atOnce.leftOver.map(({ name }) => name)).toEqual(['Site d', 'Site e']);
  // And then there is nothing to say of them.
  const again = newsOf(
    atOnce,
    ternP2,
    context([standing('a', { access: tone(948) }), standing('c', { lat: 52.1 })]),
  );
  expect(told(again)).toEqual([]);
});

test('what a sign stands for in the table is said in words', () => {
  const p = plan([placed(1, 'a'), placed(2, 'b')]);
  const news = newsOf(
    p,
    ternP2,
    context([
      standing('a', { input: null, access: OPEN }),
      standing('b', { output: 145_600_000, input: 145_600_000 }),
    ]),
  );
  expect(told(news)).toEqual([
    'changed: Site a: transmit -0.6 → listen only, access 88.5 → open',
    'changed: Site b: transmit -0.6 → same',
  ]);
});

test('what the operator chose is no news: listening only, wide or narrow, a tone of their own to expect', () => {
  const p = plan([
    placed(1, 'a', { tx: null }),
    placed(2, 'b', { mode: 'NFM' }),
    placed(3, 'c', { access: tone(885, 885) }),
    placed(4, 'd', { access: OPEN }),
  ]);
  const news = newsOf(p, ternP2, context(['a', 'b', 'c', 'd'].map((ref) => standing(ref))));
  expect(told(news)).toEqual(['changed: Site d: access open → 88.5']);
});

test('what was left is not said again until the directory says something else', () => {
  const p = plan([placed(1, 'a')]);
  const now = [standing('a', { access: tone(948) })];
  const [first] = newsOf(p, ternP2, context(now));
  expect(newsOf(p, ternP2, context(now, [leftKey(first!)]))).toEqual([]);
  const later = [standing('a', { access: tone(948), updated: '2026-04-01' })];
  expect(newsOf(p, ternP2, context(later, [leftKey(first!)]))).toHaveLength(1);
});

test('new is what a directory wrote since, near by, of a service that the plan has, for a radio that can use it', () => {
  const p = plan([placed(1, 'a')]);
  const other = { output: 145_725_000, input: 145_125_000 };
  const news = newsOf(
    p,
    ternP2,
    context([
      standing('a'),
      standing('old', { ...other, updated: '2026-01-31' }),
      standing('far', { ...other, lat: 53 }),
      standing('sea', { ...other, service: 'marine' }),
      standing('off', { ...other, onAir: false }),
      standing('secret', { ...other, encrypted: true }),
      standing('digital', { ...other, mode: 'DMR' }),
      standing('there', { updated: '2026-03-05' }),
    ]),
  );
  expect(told(news)).toEqual([]);
});
