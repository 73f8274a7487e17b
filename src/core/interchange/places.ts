import { meaningOf, readLine, rowsByMeaning, type PastedRow } from '../table';
import type { Geography } from './geography';

/**
 * Places of a geographic file as rows of stations: what stands in fields whose names are known as headings, or else in the words of its
 * name and note, as somebody would jot them down. A place of which no frequency is said comes out as a row without one.
 */
export function rowsOfPlaces(places: Geography['places']): PastedRow[] {
  return places.map(({ lat, lon, name, note, fields }, at): PastedRow => {
    const names = Object.keys(fields);
    const [read] = rowsByMeaning(names.map(meaningOf), [Object.values(fields)], () => at + 1);
    const jotted = readLine(`${name} ${note}`);
    const said = read?.cells.rx ? read.cells : { ...read?.cells, ...jotted };
    return {
      line: at + 1,
      cells: {
        ...said,
        name: (read?.cells.rx ? name || said.name : jotted?.name || name) ?? '',
        lat: String(lat),
        lon: String(lon),
        ...(note !== '' && { note }),
      },
    };
  });
}
