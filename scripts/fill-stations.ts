import { openDatabase } from '../src/db';
import { readRow, type Entry } from '../src/core/directory';
import { keepStations } from '../src/server/stations';
import { generateRegister } from '../src/sim/register/generate';

/** Fills the data directory that VERIDON_DATA_DIR names with so many kept stations: those of the register, again and again a little apart. */

const MANY = Number(process.argv[2] ?? 100_000);

const entries = generateRegister().flatMap((row) => {
  const read = readRow(row);
  return read.ok ? [read.value] : [];
});
const asked = new Date();
const all = Array.from({ length: MANY }, (_, n): Entry => {
  const entry = entries[n % entries.length]!;
  const round = Math.floor(n / entries.length);
  return {
    ...entry,
    ref: `${entry.ref}/${round}`,
    lat: entry.lat + Math.sin(round * 12.9) * 0.2,
    lon: entry.lon + Math.cos(round * 78.2) * 0.3,
  };
});
async function fill(): Promise<void> {
  const { close } = await openDatabase();
  await keepStations('relay-register', all, asked);
  await close();
}
void fill().then(() => process.exit(0));
