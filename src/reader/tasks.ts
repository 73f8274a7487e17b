import { readCardZip } from './cards';
import { readDirectory } from './directory';
import { readImage } from './images';
import { readPeople } from './people';
import { readStations } from './stations';

/** The tasks of the reader, by name. A task sends a long result in parts and waits until each part has been taken. */
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
/** The parts of a task's result; `never` for a task that sends no parts. */
export type PartOf<N extends TaskName> =
  Parameters<Tasks[N]> extends [unknown, (part: infer P) => Promise<void>] ? P : never;

/** Messages to the reader: its task, then one message for each part that has been taken. */
export type Asked = { task: TaskName; input: unknown } | { taken: true };
/** Messages from the reader: parts, then the result. */
export type Said = { part: unknown } | { done: unknown } | { mistake: string };
