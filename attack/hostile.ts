import { randomBytes } from 'node:crypto';
import { strToU8, zipSync, type Zippable } from 'fflate';
import { pick } from '../src/sim/random';

/** Files that somebody sends to see what becomes of the reader: made by hand after what readers have choked on, and made up from a seed. */

export interface HostileFile {
  name: string;
  bytes: Uint8Array;
}

/** Longest file that goes into one request, bytes. */
const LONGEST_FILE = 2_900_000;

const NS = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const REL = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

/** A spreadsheet with that as the XML of its sheet, and other parts as they are given. */
function workbook(sheet: string, more: Record<string, string> = {}): Uint8Array {
  const parts: Record<string, string> = {
    'xl/workbook.xml': `<workbook xmlns="${NS}" xmlns:r="${REL}"><sheets><sheet name="One" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<Relationships><Relationship Id="rId1" Target="worksheets/sheet1.xml"/></Relationships>`,
    'xl/worksheets/sheet1.xml': sheet,
    ...more,
  };
  const zip: Zippable = {};
  for (const [name, text] of Object.entries(parts)) zip[name] = [strToU8(text), { level: 6 }];
  return zipSync(zip);
}
const sheetOf = (rows: string) => `<worksheet xmlns="${NS}"><sheetData>${rows}</sheetData></worksheet>`;
const cell = (at: string, text: string) => `<c r="${at}" t="inlineStr"><is><t>${text}</t></is></c>`;

const many = (text: string, bytes: number) => text.repeat(Math.ceil(bytes / text.length)).slice(0, bytes);

/** Made by hand, each when it is wanted; `share` of their full length, which shows what grows faster than a file does as well, in less time. */
export const byHand = (share = 1): { name: string; make: () => HostileFile }[] => {
  const MB = 1_000_000 * share;
  const LONGEST = LONGEST_FILE * share;
  const JOTTED = 990_000 * share;
  const sheets: Record<string, () => Uint8Array> = {
    'blanks between the tags': () => workbook(`<worksheet>${many(' ', 12 * MB)}</worksheet>`),
    'blanks within a tag': () => workbook(sheetOf(`<row r="1"><c${many(' ', 12 * MB)}r="A1"/></row>`)),
    'blanks within a tag that never ends': () => workbook(`<worksheet><c ${many(' ', 12 * MB)}`),
    'a thousand tags that begin and do not end': () => workbook(many('<c ', 3 * MB)),
    'attributes without an end': () => workbook(`<worksheet><c ${many('a="1" ', 6 * MB)}`),
    'attributes without values': () => workbook(sheetOf(`<row><c ${many('r ', 6 * MB)}/></row>`)),
    'quotation marks that never close': () => workbook(sheetOf(`<row><c ${many('r="', 6 * MB)}/></row>`)),
    'cells that say their place at length': () =>
      workbook(sheetOf(`<row>${many('<c x="aaaaaaaaaaaaaaaaaaaaaaaaa" y="r=" ', 3 * MB)}</row>`)),
    'elements within elements': () => workbook(many('<a>', 12 * MB)),
    'texts within texts': () => workbook(sheetOf(`<row><c t="inlineStr"><is>${many('<t>x', 6 * MB)}`)),
    'a million empty rows': () => workbook(sheetOf(many('<row/>', 12 * MB))),
    'cells of one row': () => workbook(sheetOf(`<row r="1">${many('<c><v>1</v></c>', 9 * MB)}</row>`)),
    'the same cell': () => workbook(sheetOf(`<row r="1">${many('<c r="A1"><v>1</v></c>', 12 * MB)}</row>`)),
    entities: () => workbook(sheetOf(`<row><c t="str"><v>${many('&amp;', 12 * MB)}</v></c></row>`)),
    'numbers of signs': () => workbook(sheetOf(`<row><c t="str"><v>${many('&#', 6 * MB)}</v></c></row>`)),
    'comments that never end': () => workbook(many('<!-- ', 6 * MB)),
    'shared texts that are not there': () => workbook(sheetOf('<row><c t="s"><v>999999999</v></c></row>')),
    'shared texts without an end': () =>
      workbook(sheetOf('<row/>'), {
        'xl/sharedStrings.xml': `<sst>${many('<si><t>', 9 * MB)}`,
      }),
    escapes: () =>
      workbook(sheetOf(`<row>${cell('A1', many('_x', 30_000))}</row>`), {
        'xl/sharedStrings.xml': `<sst><si><t>${many('_x005F_', 12 * MB)}</t></si></sst>`,
      }),
    'styles without an end': () =>
      workbook(sheetOf('<row/>'), {
        'xl/styles.xml': `<styleSheet><numFmts>${many('<numFmt numFmtId="9" formatCode="[[[[[[[[&quot;&quot;"/>', 9 * MB)}`,
      }),
    'a hundred and fifty million zeros': () => workbook(many('\0', 150 * MB - 2000)),
    'more than is unpacked': () =>
      zipSync({
        'xl/workbook.xml': strToU8('<workbook/>'),
        'xl/worksheets/a.xml': [new Uint8Array(80_000_000), { level: 1 }],
        'xl/worksheets/b.xml': [new Uint8Array(80_000_000), { level: 1 }],
      }),
    'four hundred parts': () =>
      zipSync(
        Object.fromEntries(
          Array.from({ length: 500 }, (_, n): [string, Uint8Array] => [
            `xl/worksheets/s${n}.xml`,
            strToU8('<a/>'),
          ]),
        ),
      ),
  };
  const texts: Record<string, () => string> = {
    'line ends': () => many('\n', LONGEST),
    returns: () => many('\r', LONGEST),
    'quotation marks': () => many('"', LONGEST),
    'quotation marks and line ends': () => many('"\n', LONGEST),
    delimiters: () => many(',', LONGEST),
    'delimiters and line ends': () => many(',\n;\n', LONGEST),
    'one line': () => many('Ketterby;', LONGEST),
    'a heading and empty cells': () => `Name,Receive\n${many(',\n', LONGEST - 20)}`,
    'rows that are all refused': () => `Name,Receive\n${many('A,x\n', LONGEST - 20)}`,
    'rows of a quotation mark': () => `Name,Receive\n${many("'=1,145.6\n", LONGEST - 20)}`,
    'frequencies of all forms': () => `Name,Receive\n${many('A,1.4.5.6.0.0\n', LONGEST - 20)}`,
    blanks: () => many(' ', LONGEST),
    'blanks and a word': () => `${many(' ', LONGEST - 5)}word`,
    'jotted lines': () => many('Hill 145.6125 -0.6 88.5 FM\n', JOTTED),
    'jotted blanks': () => many(`Hill${' '.repeat(4000)}145.6\n`, JOTTED),
    'lists within lists': () => many('[', LONGEST),
    'objects within objects': () => many('{"channels":', LONGEST),
    'empty objects': () => `{"channels":[${many('{},', LONGEST - 40)}{}]}`,
    'long numbers': () => `{"channels":[${many('1', LONGEST - 40)}]}`,
    'points of a map': () => `{"type":"MultiPoint","coordinates":[${many('[0,0],', LONGEST - 60)}[0,0]]}`,
    'collections within collections': () => many('{"type":"GeometryCollection","geometries":[', LONGEST),
    'members of one name': () =>
      `{"type":"Feature",${many('"properties":{},', LONGEST - 40)}"geometry":null}`,
    'waypoints without an end': () => `<gpx>${many('<wpt lat="1" lon="1">', LONGEST - 10)}`,
    'placemarks within placemarks': () => `<kml>${many('<Folder><Placemark>', LONGEST - 10)}`,
    'attributes of a waypoint': () => `<gpx><wpt ${many('a="" ', LONGEST - 40)}/></gpx>`,
    'blanks of a waypoint': () => `<gpx><wpt ${many(' ', LONGEST - 40)}/></gpx>`,
    'comments of a track': () => `<gpx>${many('<!-- -->', LONGEST - 20)}</gpx>`,
    'parts that are no markup': () => `<gpx>${many('<![CDATA[x]]>', LONGEST - 20)}</gpx>`,
    'entities of a document': () => `<!DOCTYPE gpx [${many('<!ENTITY a "b">', LONGEST - 40)}]><gpx/>`,
    'entities that are used': () =>
      `<gpx><wpt lat="1" lon="1"><name>${many('&lt;', LONGEST - 80)}</name></wpt></gpx>`,
    'coordinates of a line': () =>
      `<kml><Placemark><LineString><coordinates>${many('1,1 ', LONGEST - 90)}</coordinates></LineString></Placemark></kml>`,
  };
  const all: [string, () => Uint8Array][] = [
    ...Object.entries(sheets).map(([name, of]): [string, () => Uint8Array] => [`sheet: ${name}`, of]),
    ...Object.entries(texts).map(([name, of]): [string, () => Uint8Array] => [
      `text: ${name}`,
      () => strToU8(of()),
    ]),
  ];
  return all.map(([name, of]) => {
    let made: HostileFile | undefined;
    return { name, make: () => (made ??= { name, bytes: of() }) };
  });
};

const PIECES = [
  ...[
    '<',
    '>',
    '</',
    '/>',
    '="',
    '"',
    "'",
    '&',
    ';',
    ',',
    '\n',
    '\r\n',
    '\t',
    '|',
    ' ',
    '[',
    ']',
    '{',
    '}',
    ':',
  ],
  ...['<row r="1">', '<c r="A1" t="s">', '<v>', '<t>', '<wpt lat="1" lon="2">', '<Placemark>', '<![CDATA['],
  ...[
    'Name',
    'Receive',
    '145.6125',
    '-0.6',
    '88.5',
    'FM',
    '1e999',
    'null',
    '"channels":',
    '"type":"Feature"',
  ],
  ...[
    '\0',
    '\ufeff',
    '\u202e',
    'é',
    '𝄞',
    '&#x10ffff;',
    '_x0041_',
    '=1+1',
    '\\',
    '\\"',
    '<!--',
    '-->',
    '<?xml',
  ],
];

/** Made up: pieces that mean something, each many times, in texts and as parts of a spreadsheet; and bytes of nothing. */
export function madeUp(random: () => number): HostileFile {
  const run = () => many(pick(random, PIECES), Math.floor(10 ** (1 + random() * 5)));
  const text = Array.from({ length: 1 + Math.floor(random() * 12) }, run)
    .join('')
    .slice(0, LONGEST_FILE);
  const kind = pick(random, ['text', 'text', 'sheet', 'sheet', 'part', 'bytes', 'cut']);
  if (kind === 'bytes') return { name: 'bytes', bytes: randomBytes(Math.floor(random() * 100_000)) };
  if (kind === 'text') return { name: 'text', bytes: strToU8(text) };
  const bytes =
    kind === 'part'
      ? workbook(sheetOf('<row r="1"><c r="A1" t="s"><v>0</v></c></row>'), {
          [pick(random, ['xl/sharedStrings.xml', 'xl/styles.xml', 'xl/workbook.xml'])]: text,
        })
      : workbook(random() < 0.5 ? sheetOf(text) : text);
  return kind === 'cut'
    ? { name: 'cut', bytes: bytes.subarray(0, Math.floor(random() * bytes.length)) }
    : { name: kind, bytes };
}
