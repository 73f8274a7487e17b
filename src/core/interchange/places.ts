import { meaningOf, readLine, rowsByMeaning, type PastedRow } from '../table';
import type { Geography } from './geography';

/**
 * Places of a geographic file as rows of stations: what stands in fields whose names are known as headings, or else in the words of its
 * name and note, as somebody would jot them down. A place of which no frequency is said comes out as a row without one.
 */
export function rowsOfPlaces(places: Geography['places']): PastedRow[] {
  return places.map(({ at: place, name, note, fields }, at): PastedRow => {
    const names = Object.keys(fields);
    const [read] = rowsByMeaning(names.map(meaningOf), [Object.values(fields)], () => at + 1, names);
    const jotted = readLine(`${name} ${note}`);
    const said = read?.cells.rx ? read.cells : { ...read?.cells, ...jotted };
    return {
      line: at + 1,
      cells: {
        ...said,
        name:
          (said.fixed !== undefined
            ? said.name
            : read?.cells.rx
              ? name || said.name
              : jotted?.name || name) ?? '',
        ...(place && { lat: String(place.lat), lon: String(place.lon) }),
        // What a row of Veridon's own has for a note is the whole of it.
        ...(note !== '' && said.fixed === undefined && { note }),
      },
    };
  });
}
