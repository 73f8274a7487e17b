import { readCardZip } from './cards';
import { readDirectory } from './directory';
import { readImage } from './images';
import { readPeople } from './people';
import { readStations } from './stations';

/** What the reader can be asked for, by name. Each task tells what is long in parts, and waits until a part has been taken. */
export const tasks = {
  card: readCardZip,
  directory: readDirectory,
  image: readImage,
  people: readPeople,
  stations: readStations,
};

type Tasks = typeof tasks;
export type TaskName = keyof Tasks;
export type InputOf<N extends TaskName> = Parameters<Tasks[N]>[0];
export type OutputOf<N extends TaskName> = Awaited<ReturnType<Tasks[N]>>;
/** What a task tells in parts; nothing where it tells all at its end. */
export type PartOf<N extends TaskName> =
  Parameters<Tasks[N]> extends [unknown, (part: infer P) => Promise<void>] ? P : never;

/** What a reader is sent: its task, then a word for each part that has been taken. */
export type Asked = { task: TaskName; input: unknown } | { taken: true };
/** What it says: parts, then its answer. */
export type Said = { part: unknown } | { done: unknown } | { mistake: string };
