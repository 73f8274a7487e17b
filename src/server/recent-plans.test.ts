import { channel, plan } from '../core/samples.test.kit';
import { recentPlan, rememberPlan } from './recent-plans';

const one = plan([channel(1, 145_500_000)]);
const MB = 1_000_000;

test('a revision is found by its plan and number, and stays the first that was remembered under it', () => {
  rememberPlan('pl_recent1', 4, one, 100);
  rememberPlan('pl_recent1', 4, { ...one }, 100);
  expect(recentPlan('pl_recent1', 4)).toBe(one);
  expect(recentPlan('pl_recent1', 5)).toBeUndefined();
  expect(recentPlan('pl_recent', 14)).toBeUndefined();
});

test('16 MB are remembered over all plans, the oldest forgotten first; one that is a quarter of it is not', () => {
  for (let revision = 1; revision <= 8; revision++) rememberPlan('pl_recent2', revision, one, 3 * MB);
  const held = [1, 2, 3, 4, 5, 6, 7, 8].map((revision) => recentPlan('pl_recent2', revision) !== undefined);
  // five of 3 MB are 15
  expect(held).toEqual([false, false, false, true, true, true, true, true]);
  expect(recentPlan('pl_recent1', 4)).toBeUndefined();
  rememberPlan('pl_recent3', 1, one, 5 * MB);
  expect(recentPlan('pl_recent3', 1)).toBeUndefined();
});
