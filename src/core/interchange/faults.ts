import { XMLValidator } from 'fast-xml-parser';

/** Sentences about files that are damaged. The libraries' own messages quote the file at length, and are for programmers. */

/** The line of a place in a text, from 1. */
const lineAt = (text: string, at: number): number => text.slice(0, at).split(/\r\n|\n|\r/).length;

/** What is wrong with a text that is no JSON; `error` is what `JSON.parse` threw. */
export function jsonFault(text: string, error: unknown): string {
  const said = error instanceof Error ? error.message : '';
  const at = /position (\d+)/.exec(said)?.[1];
  if (/Unexpected end|Unterminated/.test(said))
    return `This is no JSON: it breaks off in line ${lineAt(text, text.trimEnd().length)}. Nothing was read; save the file again.`;
  const where = at === undefined ? '' : ` in line ${lineAt(text, Number(at))}`;
  return `This is no JSON: it is damaged${where}. Nothing was read; save the file again.`;
}

/** What is wrong with a text that is no XML. */
export function xmlFault(text: string): string {
  const found = XMLValidator.validate(text);
  // Well-formed, and refused all the same: entities without end are.
  if (found === true) return 'This XML repeats too much. Nothing was read.';
  const { code, line } = found.err;
  // Elements without an end: the line is that of the first, which says nothing.
  const what = code === 'InvalidXml' ? 'it is not complete' : `it is damaged in line ${line}`;
  return `This is no XML: ${what}. Nothing was read; save the file again.`;
}
