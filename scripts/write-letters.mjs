// Writes src/core/plan/letters.json: the letters and signs that the transliteration package knows, each with its Latin letters. To load the
// package itself would have every page and worker build patterns for all of its languages. Run by hand after its version has changed:
// node scripts/write-letters.mjs
import { writeFileSync } from 'node:fs';
import transliterate from '@sindresorhus/transliterate';
import replacements from '../node_modules/@sindresorhus/transliterate/replacements.js';

const isAscii = (text) => /^[\0-\x7f]*$/.test(text);
/** The text as names.ts looks it up: Latin letters have lost their accents by then. */
const plain = (text) =>
  text
    .normalize('NFKD')
    .replace(/(?<=\p{Script=Latin})\p{M}+/gu, '')
    .normalize('NFC');

const letters = [...replacements.keys()]
  .filter((key) => plain(key) === key && !isAscii(key))
  .map((key) => [key, replacements.get(key)])
  .sort(([a], [b]) => (a < b ? -1 : 1));
for (const [key, latin] of letters)
  if (!isAscii(latin)) throw new Error(`${key} is written as ${transliterate(key)}, which is not ASCII`);
writeFileSync(
  'src/core/plan/letters.json',
  `{\n${letters.map((pair) => `  ${pair.map((part) => JSON.stringify(part)).join(': ')}`).join(',\n')}\n}\n`,
);
console.log(`${letters.length} letters and signs`);
