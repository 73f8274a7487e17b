import equal from 'fast-deep-equal';
import { KINDS, type HeldValue, type RecordReference, type SettingValue } from '../plan';
import { lengthOf } from '../text';
import type { ValueKind } from './setting.schema';

/** A value of a plan or of a radio; null is an empty field. */
export type AnyValue = SettingValue | HeldValue | null;

type Kind<K extends ValueKind['kind']> = Extract<ValueKind, { kind: K }>;

const grouped = (number: number) => String(number).replace(/\B(?=(\d{3})+$)/g, ',');

const withUnit = (text: string, unit: string | undefined) => (unit ? `${text} ${unit}` : text);

const rangeWords = ({ least, most, scale, unit }: Kind<'number'> | Kind<'curve'>) =>
  withUnit(`${grouped(least / scale)} to ${grouped(most / scale)}`, unit);

/** What a person may set, as the end of “it is …”: `on or off`, `a whole number from 1 to 9 s`. */
export function wantedWords(kind: ValueKind): string {
  switch (kind.kind) {
    case 'choice':
      return `one of ${kind.values.map((value) => valueWords(kind, value)).join(', ')}`;
    case 'switch':
      return 'on or off';
    case 'number': {
      const step = kind.step === kind.scale ? '' : ` in steps of ${kind.step / kind.scale}`;
      return `a ${step ? '' : 'whole '}number from ${rangeWords(kind)}${step}`;
    }
    case 'text':
      return `at most ${kind.length} characters that its display has`;
    case 'curve':
      return `${kind.points} numbers from ${rangeWords(kind)}, none below the one before`;
    case 'list':
      return `at most ${kind.count} entries, each ${wantedWords(kind.of)}`;
    case 'reference':
      return `a ${KINDS[kind.to].words.one} of the plan`;
    case 'coordinate':
      return 'a latitude from -90 to 90 and a longitude from -180 to 180 degrees';
    case 'sides':
      return `for each of ${kind.sides.join(' and ')} ${wantedWords(kind.of)}`;
  }
}

const inRange = (value: unknown, { least, most, step }: Kind<'number'> | Kind<'curve'>): value is number =>
  typeof value === 'number' && value >= least && value <= most && (value - least) % step === 0;

/** True where a setting can have the value. `characters` are those of the display. */
export function isValue(kind: ValueKind, value: AnyValue, characters: string): boolean {
  switch (kind.kind) {
    case 'choice':
      return kind.values.some((one) => one === value);
    case 'switch':
      return typeof value === 'boolean';
    case 'number':
      return inRange(value, kind);
    case 'text':
      return (
        typeof value === 'string' &&
        lengthOf(value) <= kind.length &&
        [...value].every((one) => (kind.characters ?? characters).includes(one))
      );
    case 'curve':
      return (
        Array.isArray(value) &&
        value.length === kind.points &&
        value.every(
          (one, at) =>
            inRange(one, kind) && (at === 0 || (value as readonly number[])[at - 1]! <= (one as number)),
        )
      );
    case 'list':
      return (
        Array.isArray(value) &&
        value.length <= kind.count &&
        (value as readonly AnyValue[]).every((one) => one === null || isValue(kind.of, one, characters))
      );
    case 'reference':
      return typeof value === 'object' && value !== null && 'id' in value && value.kind === kind.to;
    case 'coordinate':
      return typeof value === 'object' && value !== null && 'lat' in value;
    case 'sides':
      return (
        Array.isArray(value) &&
        value.length === kind.sides.length &&
        (value as readonly AnyValue[]).every((one) => isValue(kind.of, one, characters))
      );
  }
}

/** Why a setting cannot have the value, in a sentence; null where it can. */
export const valueFault = (
  { name, value: kind }: { name: string; value: ValueKind },
  value: AnyValue,
  characters: string,
): string | null =>
  isValue(kind, value, characters)
    ? null
    : `${name} cannot be “${valueWords(kind, value)}”: it is ${wantedWords(kind)}.`;

/** A value in words: `on`, `600 kHz`, `Q7KET`, `Left name, Right slot`. `nameOf` says what a record is called. */
export function valueWords(
  kind: ValueKind,
  value: AnyValue | undefined,
  nameOf: (kind: string, id: string) => string | undefined = () => undefined,
): string {
  if (value === undefined || value === null || value === '') return 'nothing';
  const part = (of: ValueKind, one: AnyValue) => valueWords(of, one, nameOf);
  if (Array.isArray(value)) {
    const parts = value as readonly AnyValue[];
    if (parts.length === 0) return 'nothing';
    if (kind.kind === 'sides')
      return parts.map((one, at) => `${kind.sides[at] ?? at + 1} ${part(kind.of, one)}`).join(', ');
    if (kind.kind === 'curve')
      return withUnit(parts.map((one) => String(Number(one) / kind.scale)).join(' '), kind.unit);
    return parts.map((one) => (kind.kind === 'list' ? part(kind.of, one) : String(one))).join(', ');
  }
  if (typeof value === 'object' && 'lat' in value) return `${value.lat}, ${value.lon}`;
  if (typeof value === 'object' && 'id' in value) return nameOf(value.kind, value.id) ?? value.id;
  if (kind.kind === 'reference') return `${KINDS[kind.to].words.one} ${String(value)}`;
  if (kind.kind === 'choice') {
    const words = kind.words?.[String(value)];
    if (words !== undefined) return words;
    if (typeof value === 'number') return withUnit(String(value), kind.unit);
  }
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (typeof value === 'number' && kind.kind === 'number')
    return withUnit(String(value / kind.scale), kind.unit);
  return String(value);
}

/** The kind of a value as a radio has it: of records their numbers. */
export function heldKind(kind: ValueKind): ValueKind {
  switch (kind.kind) {
    case 'reference':
      return { kind: 'number', unit: '', scale: 1, least: 0, most: 0xfffe, step: 1 };
    case 'list':
    case 'sides':
      return { ...kind, of: heldKind(kind.of) } as ValueKind;
    default:
      return kind;
  }
}

/** A value as a radio has it: the number of each record that it refers to, null for one that the radio does not hold. */
export function withNumbers(
  value: SettingValue | null,
  numberOf: (reference: RecordReference) => number | null,
): HeldValue | null {
  if (Array.isArray(value))
    return value.map((part) => withNumbers(part as SettingValue | null, numberOf)) as HeldValue;
  return typeof value === 'object' && value !== null && 'id' in value ? numberOf(value) : value;
}

/** A value of a radio as a plan has it: the record of each number, null where there is none. */
export function withRecords(
  kind: ValueKind,
  value: HeldValue | null,
  recordOf: (to: RecordReference['kind'], number: number, list: number) => RecordReference | null,
): SettingValue | null {
  if (kind.kind === 'reference')
    return typeof value === 'number' ? recordOf(kind.to, value, kind.list ?? 0) : null;
  if (Array.isArray(value) && (kind.kind === 'list' || kind.kind === 'sides'))
    return value.map((part) => withRecords(kind.of, part as HeldValue | null, recordOf)) as SettingValue;
  return value;
}

/** The factory value of a unit of an ITU region, 1 to 3. */
export const factoryValue = (
  { default: usual, byRegion }: { default: SettingValue | null; byRegion?: Record<string, SettingValue> },
  region?: number,
): SettingValue | null => byRegion?.[String(region)] ?? usual;

/** True where two values are the same. */
export const sameValue = (one: AnyValue | undefined, other: AnyValue | undefined): boolean =>
  equal(one, other);
