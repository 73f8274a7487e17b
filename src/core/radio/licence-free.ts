/** The channels of licence-free services, Hz, in the order of their numbers. Their rules stand in `addition.ts`. */

const row = (firstMhz: number, stepKhz: number, count: number): number[] =>
  Array.from({ length: count }, (_, n) => Math.round(firstMhz * 1_000_000 + n * stepKhz * 1000));

/** 446 MHz: 16 channels at 12.5 kHz. */
export const FREE_446 = row(446.00625, 12.5, 16);

/** Family radio: 1 to 7 between the seven of 15 to 22, and 8 to 14 five megahertz up. */
export const FAMILY_462 = [...row(462.5625, 25, 7), ...row(462.55, 25, 8)];
export const FAMILY_467 = row(467.5625, 25, 7);

export const MULTI_151 = [151.82, 151.88, 151.94].map((mhz) => Math.round(mhz * 1_000_000));
export const MULTI_154 = [154.57, 154.6].map((mhz) => Math.round(mhz * 1_000_000));

/** 477 MHz: 80 channels at 12.5 kHz. */
export const CITIZENS_477 = row(476.425, 12.5, 80);

/**
 * The 40 channels of the citizens' band at 27 MHz, 10 kHz apart but for five that were never given, and with 23 above 24 and
 * 25.
 */
export const CITIZENS_27 = [
  26.965, 26.975, 26.985, 27.005, 27.015, 27.025, 27.035, 27.055, 27.065, 27.075, 27.085, 27.105, 27.115,
  27.125, 27.135, 27.155, 27.165, 27.175, 27.185, 27.205, 27.215, 27.225, 27.255, 27.235, 27.245, 27.265,
  27.275, 27.285, 27.295, 27.305, 27.315, 27.325, 27.335, 27.345, 27.355, 27.365, 27.375, 27.385, 27.395,
  27.405,
].map((mhz) => Math.round(mhz * 1_000_000));
