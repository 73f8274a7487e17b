import type { Model } from './model.schema';

/** What Oriel's displays can write. */
export const CHARACTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789 -/+.*()&';

/** The bands of an all-mode set from HF to 70 cm; what it hears between them, and where it sends: the amateur bands. */
export const ALL_BANDS: Model['bands'] = [
  ['160 m', 1.6, 2.6, 1.8, 2],
  ['80 m', 2.6, 4.5, 3.5, 4],
  ['40 m', 4.5, 8, 7, 7.3],
  ['30 m', 8, 12, 10.1, 10.15],
  ['20 m', 12, 16, 14, 14.35],
  ['17 m', 16, 19.5, 18.068, 18.168],
  ['15 m', 19.5, 23, 21, 21.45],
  ['12 m', 23, 26, 24.89, 24.99],
  ['10 m', 26, 30, 28, 29.7],
  ['6 m', 30, 60, 50, 54],
  ['2 m', 118, 174, 144, 148],
  ['70 cm', 420, 470, 430, 450],
].map(([name, hearsFrom, hearsTo, sendsFrom, sendsTo]) => {
  const range = (from: unknown, to: unknown) => ({
    from: Math.round(Number(from) * 1e6),
    to: Math.round(Number(to) * 1e6),
  });
  return { name: String(name), receive: range(hearsFrom, hearsTo), transmit: range(sendsFrom, sendsTo) };
});

/** What the makers write on the face for tones and marks. */
export const MARKS: Model['face']['marks'] = {
  sendTone: 'tone',
  bothTones: 'tone both',
  code: 'code',
  narrow: 'nar',
  lowPower: 'low',
  skipped: 'skip',
  plus: 'up ',
  minus: 'dn ',
  split: 'SPLIT',
  sending: 'ON AIR',
  noTransmit: 'RX ONLY',
};
