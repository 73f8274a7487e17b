import { strToU8, zipSync, type Zippable } from 'fflate';
import { readFile, TABLE_LIMITS } from '.';

/** Spreadsheets made by hand, as ISO/IEC 29500 has them, and some that are not what they say. */

const NS = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const REL = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';

const workbook = (sheet: string, more: Zippable = {}): Uint8Array =>
  zipSync({
    '[Content_Types].xml': strToU8(`<Types xmlns="${PACKAGE}/content-types"/>`),
    '_rels/.rels': strToU8(
      `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${REL}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    ),
    'xl/workbook.xml': strToU8(
      `<workbook xmlns="${NS}" xmlns:r="${REL}"><sheets><sheet name="One" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    ),
    'xl/_rels/workbook.xml.rels': strToU8(
      `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${REL}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    ),
    'xl/worksheets/sheet1.xml': strToU8(
      `<?xml version="1.0"?><worksheet xmlns="${NS}"><sheetData>${sheet}</sheetData></worksheet>`,
    ),
    ...more,
  });
const cell = (at: string, text: string) => `<c r="${at}" t="inlineStr"><is><t>${text}</t></is></c>`;
const number = (at: string, value: string) => `<c r="${at}"><v>${value}</v></c>`;
const HEAD = `<row r="1">${cell('A1', 'Name')}${cell('B1', 'Receive')}${cell('C1', 'Tone')}</row>`;
const reason = async (bytes: Uint8Array) => {
  const read = await readFile(bytes);
  return read.ok ? 'read' : read.reason;
};

test('a spreadsheet is a table: numbers as they would be typed, in the rows where they stand', async () => {
  const read = await readFile(
    workbook(
      `${HEAD}<row r="4">${cell('A4', 'Hill')}${number('B4', '145.61250000000001')}${number('C4', '88.5')}</row>`,
    ),
  );
  expect(read).toMatchObject({
    ok: true,
    value: {
      kind: 'table',
      encoding: 'spreadsheet',
      table: {
        delimiter: null,
        meanings: ['name', 'rx', 'access'],
        rows: [['Hill', '145.6125', '88.5']],
        lines: [4],
      },
    },
  });
});

test.each([
  ['a column beyond all', `<row r="1">${cell('ZZZ1', 'x')}</row>`, /ZZZ1 stands beyond 200 columns/],
  ['a row beyond all', `<row r="999999">${cell('A999999', 'x')}</row>`, /beyond row 60000/],
  ['an empty row beyond all', `${HEAD}<row r="1048576"/>`, /Row 1048576 stands beyond row 60000/],
])('%s is refused before rows are made of it', async (_, sheet, said) => {
  expect(await reason(workbook(sheet))).toMatch(said);
});

/**
 * The archive with another unpacked size stated for the parts whose names match. The size is at byte 24 of an entry of the central directory, little
 * end first, and the name at byte 46 with its length at byte 28 (APPNOTE 6.3, 4.3.12).
 */
function stating(size: number, archive: Uint8Array, names: RegExp): Uint8Array {
  const changed = archive.slice();
  const view = new DataView(changed.buffer);
  for (let at = 0; at < changed.length - 46; at++) {
    if (view.getUint32(at) !== 0x504b0102) continue;
    const name = Buffer.from(changed.subarray(at + 46, at + 46 + view.getUint16(at + 28, true))).toString();
    if (names.test(name)) view.setUint32(at + 24, size, true);
  }
  return changed;
}

test('what unpacks to more than is read is refused without being unpacked', async () => {
  const sheets: Zippable = {};
  for (const n of [2, 3, 4]) sheets[`xl/worksheets/sheet${n}.xml`] = strToU8('<worksheet/>');
  // Three sheets of 50 MB are at the limit of 150 MB; the other parts exceed it.
  const large = stating(50_000_000, workbook(HEAD, sheets), /sheet[234]/);
  expect(await reason(large)).toMatch(/larger than 150 MB/);
  // A third of that is read: the first sheet alone is wanted.
  expect(await reason(stating(16_000_000, workbook(HEAD, sheets), /sheet[234]/))).toBe('read');
});

test('one that lies about its size is unpacked no further than it says', async () => {
  const ordinary = workbook(`${HEAD}${`<row>${cell('A2', 'x'.repeat(1000))}</row>`.repeat(500)}`);
  expect(await reason(stating(9, ordinary, /./))).toMatch(
    /cannot be read|no spreadsheet|damaged|nothing in this file/,
  );
});

test('zip archives of other kinds, and those cut off, are refused by what they are', async () => {
  expect(await reason(zipSync({ 'photo.txt': strToU8('hello') }))).toMatch(
    /a zip archive, and no spreadsheet/,
  );
  expect(await reason(workbook(HEAD).slice(0, 300))).toMatch(/damaged or cut off/);
  expect(await reason(workbook('<row r="1"><c r="A1"'))).toMatch(/\S/);
});

test('a cell that is as long as a book is said with its place', async () => {
  const long = workbook(`${HEAD}<row r="2">${cell('A2', 'x'.repeat(TABLE_LIMITS.cell + 1))}</row>`);
  expect(await reason(long)).toMatch(/A2/);
});

test.each([
  ['plainly', 'A'],
  ['as a reference to its number', '&#0000065;'],
  ['as an escape', '_x0041_'],
  // `_x0041_` again, each of its signs by its number.
  ['as an escape of references', '&#0000095;&#0000120;&#0000048;&#0000048;&#0000052;&#0000049;&#0000095;'],
])(
  'a text of 10,000 characters, each written %s, is read whole, and one more is refused',
  async (_, sign) => {
    const shared = (length: number) => ({
      'xl/sharedStrings.xml': strToU8(`<sst xmlns="${NS}"><si><t>${sign.repeat(length)}</t></si></sst>`),
    });
    const byNumber = `${HEAD}<row r="2"><c r="A2" t="s"><v>0</v></c>${number('B2', '145.5')}</row>`;
    const inCell = (length: number) =>
      `${HEAD}<row r="2">${cell('A2', sign.repeat(length))}${number('B2', '145.5')}</row>`;
    for (const whole of [workbook(byNumber, shared(10_000)), workbook(inCell(10_000))])
      expect(await readFile(whole)).toMatchObject({
        value: { table: { rows: [['A'.repeat(10_000), '145.5']] } },
      });
    for (const long of [
      workbook(byNumber, shared(10_001)),
      workbook(inCell(10_001)),
      workbook(inCell(500_000)),
    ])
      expect(await reason(long)).toMatch(/^Cell A2 has more than 10000 characters/);
  },
);

test('a number is a day where its format writes one, and a number where not (ISO/IEC 29500-1, 18.8.30)', async () => {
  // 14 is a day, 46 a time; 48 is a number with an exponent, 49 a text; 164 to 166 are the file's own.
  const formats = [0, 14, 46, 48, 49, 50, 164, 165, 166];
  const styles = `<styleSheet xmlns="${NS}"><numFmts><numFmt numFmtId="164" formatCode="dd.mm.yyyy"/><numFmt numFmtId="165" formatCode="0.0000&quot; MHz, day&quot;"/><numFmt numFmtId="166" formatCode="[Red]General"/></numFmts><cellStyleXfs><xf numFmtId="14"/></cellStyleXfs><cellXfs>${formats.map((id) => `<xf numFmtId="${id}"/>`).join('')}</cellXfs></styleSheet>`;
  // December 30th 1899 is day 0, so January 1st 2023 is day 2 + 123 * 365 + 30 leap days = 44,927; March 15th is 31 + 28 + 14 days later.
  const cells = formats.map((_, n) => `<c r="${'ABCDEFGHI'[n]}1" s="${n}"><v>45000</v></c>`).join('');
  const read = await readFile(workbook(`<row r="1">${cells}</row>`, { 'xl/styles.xml': strToU8(styles) }));
  const day = '2023-03-15T00:00:00.000Z';
  expect(read.ok && read.value.kind === 'table' && read.value.table.rows[0]).toEqual([
    ...['45000', day, day, '45000', '45000', day],
    ...[day, '45000', '45000'],
  ]);
});
