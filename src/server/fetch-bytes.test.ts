import { bytesOf } from './fetch-bytes';
import { giveUpAfter } from './fetch-json';

test('a load that was stopped before it asked anybody ends at once, and asks nobody', async () => {
  const asked = jest.spyOn(globalThis, 'fetch').mockImplementation(() => new Promise<Response>(() => {}));
  const stop = new AbortController();
  stop.abort();
  const bytes = bytesOf({ source: 'Ident Roll', path: '/roll/people.json' }, stop.signal);
  await expect(bytes.next()).rejects.toMatchObject({ name: 'AbortError' });
  expect(asked).not.toHaveBeenCalled();
  asked.mockRestore();
});

test('nobody is patient for somebody who has gone already', () => {
  const gone = new AbortController();
  gone.abort();
  expect(giveUpAfter(1000, gone.signal).aborted).toBe(true);
});
