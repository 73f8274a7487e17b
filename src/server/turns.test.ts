import { inTurn } from './turns';

const pause = () => new Promise((resolve) => setTimeout(resolve, 1));

test('clients are served in turn, each in its own order, one at a time', async () => {
  const done: string[] = [];
  let atOnce = 0;
  const ask = (client: string, n: number) =>
    inTurn(client, async () => {
      expect(++atOnce).toBe(1);
      await pause();
      atOnce--;
      done.push(`${client}${n}`);
      return n;
    });
  const script = Promise.all([1, 2, 3, 4, 5].map((n) => ask('script', n)));
  const person = Promise.all([1, 2].map((n) => ask('person', n)));
  expect(await script).toEqual([1, 2, 3, 4, 5]);
  expect(await person).toEqual([1, 2]);
  // script1 had begun before the person came
  expect(done).toEqual(['script1', 'script2', 'person1', 'script3', 'person2', 'script4', 'script5']);
});

test('what fails is the business of the one who asked; the others are served', async () => {
  const failing = inTurn('a', () => Promise.reject(new Error('not so')));
  const next = inTurn('a', async () => 'served');
  await expect(failing).rejects.toThrow('not so');
  expect(await next).toBe('served');
});

test('a client that has a thousand waiting is told so; another is not', async () => {
  let open = () => {};
  const door = new Promise<void>((resolve) => (open = resolve));
  const all = Array.from({ length: 1001 }, () => inTurn('flood', () => door));
  await expect(inTurn('flood', async () => 1)).rejects.toMatchObject({ status: 429, kind: 'too-many' });
  const other = inTurn('other', async () => 1);
  open();
  await Promise.all(all);
  expect(await other).toBe(1);
});
