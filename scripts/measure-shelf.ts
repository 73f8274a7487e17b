import { largePlan } from '../demo/large-plan';
import { readRow } from '../src/core/directory';
import { check, contentToWrite } from '../src/core/check';
import { fit } from '../src/core/fit';
import { blankImage } from '../src/core/format';
import { bytesOf, decodeImage, encodeImage, ownedMask } from '../src/core/image';
import { MODELS } from '../src/core/models';
import { formatOf } from '../src/core/models/formats';
import { moveToModel, sideBySide } from '../src/core/organise';
import { generateRegister } from '../src/sim/register/generate';

/** The shelf of radios: side by side of all models, fit and check for the one that holds most, its image against plain copying. */

const entries = generateRegister().flatMap((row) => {
  const read = readRow(row);
  return read.ok ? [read.value] : [];
});
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const runs = <T>(n: number, run: (n: number) => T): { ms: number; last: T } => {
  const times: number[] = [];
  let last!: T;
  for (let at = 0; at < n; at++) {
    const began = performance.now();
    last = run(at);
    times.push(performance.now() - began);
  }
  return { ms: median(times), last };
};

const plan = largePlan(entries, { bad: false });
const six = MODELS.slice(0, 6).map((model) => ({ model }));
// Copies have nothing in common: nothing is remembered of them.
const copies = Array.from({ length: 9 }, () => structuredClone(plan));
const beside = runs(9, (n) => sideBySide(copies[n]!, six));
console.log(
  `Side by side of ${six.length} models, ${plan.channels.length} channels, from nothing: ${beside.ms.toFixed(0)} ms`,
);

const largest = [...MODELS].sort(
  (a, b) => b.slots.count * b.lists.length - a.slots.count * a.lists.length,
)[0]!;
const moved = moveToModel(plan, largest).plan;
const full = Array.from({ length: 9 }, () => structuredClone(moved));
const checked = runs(9, (n) => check(full[n]!, largest, fit(full[n]!, largest)));
console.log(
  `Fit and check of ${moved.channels.length} channels for the ${largest.name}, from nothing: ${checked.ms.toFixed(0)} ms`,
);
const content = contentToWrite(moved, largest);
const base = blankImage(formatOf(largest));
const encoded = runs(15, () => encodeImage(content, base, largest));
const decoded = runs(15, () => decodeImage(encoded.last, largest));
// The yardstick: as many bytes as the format names, each copied by itself with a mask, as a codec does at the least.
const mask = ownedMask(largest);
const copied = runs(15, () => {
  const image = base.slice();
  for (let at = 0; at < image.length; at++)
    image[at] = (image[at]! & ~mask[at]!) | (encoded.last[at]! & mask[at]!);
  return image;
});
console.log(
  `Image of the ${largest.name}, ${bytesOf(largest)} bytes with ${content.channels.length} channels: encode ${encoded.ms.toFixed(1)} ms, decode ${decoded.ms.toFixed(1)} ms; ${(encoded.ms / copied.ms).toFixed(0)} and ${(decoded.ms / copied.ms).toFixed(0)} times copying its bytes one by one under their mask (${copied.ms.toFixed(2)} ms)`,
);
