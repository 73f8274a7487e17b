import { plain } from '../radio';
import { rememberedByText } from '../remember';
import { isWritten } from '../text';
import {
  BESIDES,
  COLUMN_MEANINGS,
  headingOf,
  WITH_UNIT,
  type ColumnMeaning,
  type PastedField,
  type PastedRow,
} from './headings';

/**
 * Rows of a table as fields, by what each column is. A long file has half a million cells: they are read where they stand, when somebody
 * asks, and no row is written out field by field before.
 */

/** A shift and its direction in columns of their own, as one text: `0.6` and `-` are `-0.6`. */
function transmitText(shift: string | undefined, direction: string | undefined): string | undefined {
  if (shift === undefined && direction === undefined) return undefined;
  const size = plain(shift ?? '').replace(/^\+(?=\s*[-+])/, '');
  const way = plain(direction ?? '').toLowerCase();
  if (direction !== undefined && /^(simplex|s|none|off|=|0?)$/.test(way) && way !== '') return '=';
  const sign = /^(\+|plus|up|positive|dup\+)$/.test(way)
    ? '+'
    : /^(-|minus|down|negative|dup-)$/.test(way)
      ? '-'
      : '';
  // Nothing is said of it: it sends where it receives, as any channel that is new.
  if (size === '' && way === '') return undefined;
  if (size === '' || /^[+-]?0+([.,]0*)?$/.test(size)) return sign === '' || size !== '' ? '=' : sign;
  if (sign !== '') return sign + size.replace(/^[+-]\s*/, '');
  // Without a sign and a direction it would read as a frequency.
  return /^[+-]/.test(size) ? size : `+${size}`;
}

function accessText(
  access: string | undefined,
  send: string | undefined,
  expect: string | undefined,
): string | undefined {
  if (send === undefined && expect === undefined) return access;
  const [out, back] = [send, expect].map((text) => plain(text ?? '').replace(/^(none|off|-+|0)$/i, ''));
  if (out === '' && back === '') return access ?? '';
  return back === '' ? out : `${out}/${back}`;
}

/** The unit that a heading names, for the figures that stand under it without one: `Receive kHz` is kHz. */
const unitOf = (heading: string | undefined): string | undefined => {
  const [, word] = /(?:^| )([kmg]?hz)$/.exec(headingOf(heading ?? '')) ?? [];
  return ['Hz', 'kHz', 'MHz', 'GHz'].find((unit) => unit.toLowerCase() === word);
};

/** Stands for a column that there is not; no cell has it. */
const NOT_SAID = '\0';

/** Where the fields of a table stand. */
class Columns {
  /** The one column of a field, one past the last where it has none; -1 where several columns or a unit want more thought. */
  readonly at: Readonly<Record<ColumnMeaning, number>>;
  private readonly places: Readonly<Record<ColumnMeaning, readonly number[]>>;
  private readonly withUnit: readonly (((text: string) => string) | undefined)[];
  /** The one column of what is received, and what its heading makes of a text there; null where there is none, or several. */
  readonly receive: { place: number; withUnit: (text: string) => string } | null;
  readonly shifted: (direction: string) => (shift: string) => string | undefined;

  constructor(
    private readonly meanings: readonly (ColumnMeaning | undefined)[],
    headings: readonly string[] | null,
  ) {
    this.withUnit = meanings.map((meaning, column) => {
      const unit = WITH_UNIT.includes(meaning) ? unitOf(headings?.[column]) : undefined;
      // What reads as nothing is nothing, in whatever unit.
      return unit === undefined
        ? undefined
        : rememberedByText((text) =>
            /^[-+]?[\d., ']*[1-9][\d., ']*$/.test(plain(text)) ? `${text.trim()} ${unit}` : text,
          );
    });
    const placesOf = (field: ColumnMeaning) =>
      meanings.flatMap((one, place) => (one === field ? [place] : []));
    const each = <V>(of: (field: ColumnMeaning) => V) =>
      Object.fromEntries(COLUMN_MEANINGS.map((field) => [field, of(field)])) as Record<ColumnMeaning, V>;
    this.places = each(placesOf);
    this.at = each((field) => {
      const [place = meanings.length, ...others] = this.places[field];
      return others.length === 0 && this.withUnit[place] === undefined ? place : -1;
    });
    const [receive = -1, ...others] = this.places.rx;
    this.receive =
      receive < 0 || others.length > 0
        ? null
        : { place: receive, withUnit: this.withUnit[receive] ?? ((text) => text) };
    this.shifted = rememberedByText((direction) =>
      rememberedByText((shift) =>
        transmitText(shift === NOT_SAID ? undefined : shift, direction === NOT_SAID ? undefined : direction),
      ),
    );
  }

  /** What stands in a field's column, or in the first of several that has something in it; undefined where it has none. */
  cell(row: readonly string[], field: ColumnMeaning, place: number): string | undefined {
    if (place >= 0) return place < this.meanings.length ? (row[place] ?? '') : undefined;
    const own = this.places[field];
    const filled = own.length === 1 ? own[0]! : (own.find((one) => isWritten(row[one] ?? '')) ?? own[0]!);
    const text = row[filled] ?? '';
    return this.withUnit[filled]?.(text) ?? text;
  }
}

/** The fields of a row, each read when it is asked for. */
class RowCells implements Readonly<Record<PastedField, string | undefined>> {
  constructor(
    readonly row: readonly string[],
    readonly columns: Columns,
  ) {}
  get rx() {
    return this.columns.cell(this.row, 'rx', this.columns.at.rx);
  }
  get name() {
    const name = this.columns.cell(this.row, 'name', this.columns.at.name);
    if (name !== undefined && isWritten(name)) return name;
    // What has a call sign and no name is called by that.
    return this.fixed === undefined ? this.call || name : name;
  }
  get tx() {
    const { at, shifted } = this.columns;
    const tx = this.columns.cell(this.row, 'tx', at.tx);
    if (tx !== undefined && isWritten(tx)) return tx;
    const direction = this.columns.cell(this.row, 'direction', at.direction);
    const shift = this.columns.cell(this.row, 'shift', at.shift);
    return shifted(direction ?? NOT_SAID)(shift ?? NOT_SAID) ?? tx;
  }
  get access() {
    const { at } = this.columns;
    return accessText(
      this.columns.cell(this.row, 'access', at.access),
      this.columns.cell(this.row, 'send', at.send),
      this.columns.cell(this.row, 'expect', at.expect),
    );
  }
  get mode() {
    return this.columns.cell(this.row, 'mode', this.columns.at.mode);
  }
  get power() {
    return this.columns.cell(this.row, 'power', this.columns.at.power);
  }
  get scan() {
    return this.columns.cell(this.row, 'scan', this.columns.at.scan);
  }
  get note() {
    return this.columns.cell(this.row, 'note', this.columns.at.note);
  }
  get tags() {
    return this.columns.cell(this.row, 'tags', this.columns.at.tags);
  }
  get call() {
    return this.columns.cell(this.row, 'call', this.columns.at.call);
  }
  get place() {
    return this.columns.cell(this.row, 'place', this.columns.at.place);
  }
  get lat() {
    return this.columns.cell(this.row, 'lat', this.columns.at.lat);
  }
  get lon() {
    return this.columns.cell(this.row, 'lon', this.columns.at.lon);
  }
  get locator() {
    return this.columns.cell(this.row, 'locator', this.columns.at.locator);
  }
  get service() {
    return this.columns.cell(this.row, 'service', this.columns.at.service);
  }
  get slot() {
    return this.columns.cell(this.row, 'slot', this.columns.at.slot);
  }
  get side() {
    return this.columns.cell(this.row, 'side', this.columns.at.side);
  }
  get always() {
    return this.columns.cell(this.row, 'always', this.columns.at.always);
  }
  get satellite() {
    return this.columns.cell(this.row, 'satellite', this.columns.at.satellite);
  }
  get fixed() {
    return this.columns.cell(this.row, 'fixed', this.columns.at.fixed);
  }
  get directory() {
    return this.columns.cell(this.row, 'directory', this.columns.at.directory);
  }
  get entry() {
    return this.columns.cell(this.row, 'entry', this.columns.at.entry);
  }
}

/** The columns of the table that stand in a row of their own name, and what comes beside them. */
const PASTED_FIELDS: readonly PastedField[] = [
  ...(['name', 'rx', 'tx', 'access', 'mode', 'power', 'scan'] as const),
  ...BESIDES,
];

/** What a row says, in the order in which it was written. */
export const textOf = (cells: PastedRow['cells']): string =>
  (cells instanceof RowCells ? cells.row : Object.values(cells)).filter(Boolean).join(' ');

/** What reads fields of a row of cells, by what each column is and the unit that its heading names. */
export function fieldReader(
  meanings: readonly (ColumnMeaning | undefined)[],
  headings: readonly string[] | null = null,
): (row: readonly string[]) => PastedRow['cells'] {
  const columns = new Columns(meanings, headings);
  return (row) => new RowCells(row, columns);
}

/**
 * Reads what a row receives, once for each text that stands there: what comes of it and of the unit of its heading is looked up at one
 * go, which of a long file saves a tenth.
 */
export function receiveReader<V>(read: (text: string) => V): (cells: PastedRow['cells']) => V {
  const asItStands = rememberedByText(read);
  let columns: Columns | undefined;
  let inUnit = asItStands;
  return (cells) => {
    if (!(cells instanceof RowCells) || !cells.columns.receive) return asItStands(cells.rx ?? '');
    const { place, withUnit } = cells.columns.receive;
    if (cells.columns !== columns) {
      columns = cells.columns;
      inUnit = rememberedByText((text) => read(withUnit(text)));
    }
    return inUnit(cells.row[place] ?? '');
  };
}

/**
 * Rows of cells as fields, written out, each with the line in which `lineOf` says that it stood; a row in which nothing stands is none.
 */
export function rowsByMeaning(
  meanings: readonly (ColumnMeaning | undefined)[],
  rows: readonly (readonly string[])[],
  lineOf: (row: number) => number,
  headings: readonly string[] | null = null,
): PastedRow[] {
  const read = fieldReader(meanings, headings);
  return rows.flatMap((row, at) => {
    if (!row.some((text) => text.trim() !== '')) return [];
    const of = read(row);
    const cells: PastedRow['cells'] = {};
    for (const field of PASTED_FIELDS) if (of[field] !== undefined) cells[field] = of[field];
    return [{ line: lineOf(at), cells }];
  });
}
