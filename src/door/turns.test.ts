import { laneOf, makeTurns } from './turns.mjs';

const pause = () => new Promise((resolve) => setTimeout(resolve, 1));

/** Lets clients ask, and keeps the order in which they were served and how many were at once. */
function counter(atOnce: number, mostWaiting = 1000, ofOne = atOnce) {
  const inTurn = makeTurns({ atOnce, ofOne, mostWaiting });
  const served: string[] = [];
  let working = 0;
  let most = 0;
  const ask = (client: string, n: number) =>
    new Promise<boolean>((resolve) => {
      const taken = inTurn(client, async () => {
        most = Math.max(most, ++working);
        await pause();
        working--;
        served.push(`${client}${n}`);
        resolve(true);
      });
      if (!taken) resolve(false);
    });
  return { inTurn, served, ask, most: () => most };
}

test('clients are served in turn, each in its own order, one at a time', async () => {
  const { served, ask, most } = counter(1);
  await Promise.all([
    ...[1, 2, 3, 4, 5].map((n) => ask('script', n)),
    ...[1, 2].map((n) => ask('person', n)),
  ]);
  // script1 had begun before the person came
  expect(served).toEqual(['script1', 'script2', 'person1', 'script3', 'person2', 'script4', 'script5']);
  expect(most()).toBe(1);
});

test('never more at once than there are hands', async () => {
  const { served, ask, most } = counter(4);
  await Promise.all(Array.from({ length: 30 }, (_, n) => ask(`c${n % 3}`, n)));
  expect(served).toHaveLength(30);
  expect(most()).toBe(4);
});

test('never more of one client at once than it may have; the other hands serve others', async () => {
  const { served, ask, most } = counter(4, 1000, 1);
  const script = Array.from({ length: 5 }, (_, n) => ask('s', n));
  await Promise.all([...script, ask('p', 0)]);
  // while the script's first is worked on its others wait, and the person does not
  expect(served).toEqual(['s0', 'p0', 's1', 's2', 's3', 's4']);
  expect(most()).toBe(2);
});

test('what fails is the business of the one who asked; the others are served', async () => {
  const { inTurn, served, ask } = counter(1);
  expect(inTurn('a', () => Promise.reject(new Error('not so')))).toBe(true);
  await ask('a', 1);
  expect(served).toEqual(['a1']);
});

test('a client that has too many waiting is told so; another is not', async () => {
  const { ask } = counter(1, 3);
  const all = Array.from({ length: 6 }, (_, n) => ask('flood', n));
  const other = ask('other', 1);
  // the first is being served, three wait
  expect(await Promise.all(all)).toEqual([true, true, true, true, false, false]);
  expect(await other).toBe(true);
});

test.each([
  ['page7f3a.12', '/api/plans/pl_abcd/edits', 'page7f3a'],
  [undefined, '/api/plans/pl_abcd/edits?x=1', '/api/plans/pl_abcd/edits'],
  ['nonsense', '/api/plans', '/api/plans'],
])('the change %s of %s waits in the lane %s', (key, path, lane) => expect(laneOf(key, path)).toBe(lane));
