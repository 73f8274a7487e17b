import { z } from 'zod';
import { wantedText } from '../text';

/** A list of short forms, as word and short form; each word once, whatever its case. */
export const abbreviationsSchema = z
  .array(
    z.tuple([wantedText(32).refine((word) => !/\s/.test(word), 'is more than one word'), wantedText(12)]),
  )
  .max(500)
  .refine(
    (list) => new Set(list.map(([word]) => word.toLowerCase())).size === list.length,
    'has a word twice',
  );
export type Abbreviations = readonly (readonly [string, string])[];

/** The usual short forms, which a plan without a list of its own goes by. */
export const ABBREVIATIONS: Abbreviations = [
  ['Calling', 'CL'],
  ['Channel', 'CH'],
  ['Cross', 'X'],
  ['East', 'E'],
  ['Emergency', 'EMG'],
  ['Ferries', 'FRY'],
  ['Ferry', 'FRY'],
  ['Harbour', 'HBR'],
  ['Head', 'HD'],
  ['Hill', 'HL'],
  ['Isle', 'IS'],
  ['Isles', 'IS'],
  ['Island', 'IS'],
  ['Lighthouse', 'LT'],
  ['Linked', 'LK'],
  ['Marine', 'MAR'],
  ['Mount', 'MT'],
  ['North', 'N'],
  ['Point', 'PT'],
  ['Port', 'PT'],
  ['Quay', 'QY'],
  ['Rescue', 'RSC'],
  ['Ridge', 'RDG'],
  ['South', 'S'],
  ['Station', 'STN'],
  ['Tower', 'TWR'],
  ['Water', 'WTR'],
  ['Weather', 'WX'],
  ['West', 'W'],
];
