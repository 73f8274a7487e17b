import Papa from 'papaparse';
import { readFile, rowsOfTable, writeChannels, type Outgoing } from '../src/core/interchange';
import { CHANNEL_LIMIT, channelDefaults, makeId } from '../src/core/plan';
import { newRows } from '../src/core/table';

/** Files of many rows: read and checked, held against the CSV library alone; spreadsheets written and read, with their peak of memory. */

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const chance = new Uint8Array(12_000);
let used = chance.length;
/** As the worker makes them. */
const newId = () => {
  if (used >= chance.length) {
    crypto.getRandomValues(chance);
    used = 0;
  }
  used += 12;
  return makeId('ch', chance.subarray(used - 12, used));
};
const text = ['Name,Receive MHz,Shift,Tone,Mode,Power,Lat,Lon,Note']
  .concat(
    Array.from(
      { length: 50_000 },
      (_, n) =>
        `Station ${n},${(144 + (n % 1600) * 0.0125).toFixed(4)},${n % 3 === 0 ? '-0.6' : '0'},${n % 2 === 0 ? '88.5' : ''},FM,4 W,${(52 + (n % 100) / 100).toFixed(3)},-30.1,"north, of the ${n}th hill"`,
    ),
  )
  .join('\r\n');
const bytes = new TextEncoder().encode(text);

async function rows(): Promise<void> {
  const library: number[] = [];
  const ours: number[] = [];
  for (let run = 0; run < 9; run++) {
    // Neither is charged with what the other left behind: a worker reads one file into a heap of its own.
    globalThis.gc!();
    let began = performance.now();
    const { data } = Papa.parse<string[]>(new TextDecoder().decode(bytes), { delimiter: ',' });
    library.push(performance.now() - began);
    if (data.length !== 50_001) throw new Error(`The library read ${data.length} rows.`);
    globalThis.gc!();
    began = performance.now();
    const read = await readFile(bytes);
    if (!read.ok) throw new Error(read.reason);
    if (read.value.kind !== 'table') throw new Error('It is no table.');
    const rows = rowsOfTable(read.value.table);
    const { channels, beyond, odd, refused } = newRows(rows, { region: 'orrin' }, newId, CHANNEL_LIMIT);
    ours.push(performance.now() - began);
    if (channels.length + beyond !== 50_000 || odd.length + refused.length > 0)
      throw new Error('Not all rows were read.');
  }
  console.log(
    `50,000 CSV rows read and checked: ${median(ours).toFixed(0)} ms (9 runs; the CSV library alone ${median(library).toFixed(0)} ms, ${(median(ours) / median(library)).toFixed(2)} times)`,
  );
}

async function sheets(): Promise<void> {
  const channels = Array.from({ length: 20_000 }, (_, n): Outgoing => ({
    ...channelDefaults(145_000_000 + (n % 160) * 12_500),
    id: newId(),
    slot: n % 10_000,
    name: `Station ${n}`,
    note: `north of hill ${n}`,
    source: { directory: 'relay-register', entry: `RR-${n}`, service: 'amateur', lat: 52, lon: -30 },
  }));
  const before = process.memoryUsage().rss;
  let peak = before;
  const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 5);
  let began = performance.now();
  const sheet = await writeChannels('xlsx', channels, 'Measured');
  const written = performance.now() - began;
  peak = Math.max(peak, process.memoryUsage().rss);
  began = performance.now();
  const read = await readFile(sheet);
  const taken = performance.now() - began;
  clearInterval(watch);
  peak = Math.max(peak, process.memoryUsage().rss);
  if (!read.ok || read.value.kind !== 'table' || read.value.table.rows.length !== 20_000)
    throw new Error(read.ok ? 'Not all rows came back.' : read.reason);
  console.log(
    `XLSX of 20,000 rows: written ${written.toFixed(0)} ms, read ${taken.toFixed(0)} ms (${(sheet.length / 1e6).toFixed(1)} MB; ${((peak - before) / 1e6).toFixed(0)} MB more memory at the peak)`,
  );
}

void rows().then(sheets);
