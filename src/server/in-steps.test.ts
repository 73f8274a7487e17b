import type { Stepwise } from '../core/stepwise';
import { inSteps } from './in-steps';

test('others have their turn between the steps of a long computation', async () => {
  let clock = 0;
  const now = jest.spyOn(performance, 'now').mockImplementation(() => clock);
  function* long(): Stepwise<number> {
    for (let step = 0; step < 100; step++) {
      // Each step takes 4 ms of the clock.
      clock += 4;
      yield;
    }
    return 7;
  }
  let turns = 0;
  const other = () => {
    turns++;
    waiting = setImmediate(other);
  };
  let waiting = setImmediate(other);
  expect(await inSteps(long())).toBe(7);
  clearImmediate(waiting);
  now.mockRestore();
  // 400 ms in stretches of 8.
  expect(turns).toBeGreaterThanOrEqual(49);
});
