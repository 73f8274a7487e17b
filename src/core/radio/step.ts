import type { Hertz } from './frequency';

/** Tuning steps in Hz; 10 Hz is how all-mode sets tune. 8.33 kHz is a third of 25 kHz and has no whole-hertz value, so it goes by its name. */
export const STEPS = [
  10,
  5_000,
  6_250,
  '8.33',
  10_000,
  12_500,
  15_000,
  20_000,
  25_000,
  50_000,
  100_000,
] as const;
export type Step = (typeof STEPS)[number];

/** True where `hz` is a whole number of steps from 0 Hz. */
export function onStep(hz: Hertz, step: Step): boolean {
  return nearestOnStep(hz, step) === hz;
}

/** The whole number of steps nearest to `hz`, in Hz; halfway goes up. */
export function nearestOnStep(hz: Hertz, step: Step): Hertz {
  if (step === '8.33') return Math.round((Math.round((hz * 3) / 25_000) * 25_000) / 3);
  return Math.round(hz / step) * step;
}

/** True where `hz` lies on any of a radio's steps. */
export function onAnyStep(hz: Hertz, steps: readonly Step[]): boolean {
  return steps.some((step) => onStep(hz, step));
}

/** The frequency nearest to `hz` that any of the steps can tune. */
export function nearestOnSteps(hz: Hertz, steps: readonly Step[]): Hertz {
  const choices = steps.map((step) => nearestOnStep(hz, step));
  return choices.reduce((best, next) => (Math.abs(next - hz) < Math.abs(best - hz) ? next : best));
}
