import * as fc from '../property.test.kit';
import { ternP2 } from '../models/tern-p2';
import { channel, plan } from '../samples.test.kit';
import { CARD, cardSheets, paperRows } from '.';

test('a channel on paper: as the radio reads it, its transmit side in the fewest signs', () => {
  const tone = { kind: 'analogue' as const, send: { kind: 'tone' as const, tone: 885 }, expect: null };
  const rows = paperRows(
    plan([
      channel(3, 145_612_500, { name: 'Ullsmere Hill', tx: 145_012_500, access: tone }),
      channel(4, 145_500_000, { name: 'Calling' }),
      channel(5, 162_400_000, { name: 'Weather', tx: null, scan: false, note: 'north' }),
      channel(6, 439_000_000, { name: 'Split', tx: 431_250_000, txFixed: true }),
    ]),
    ternP2,
  );
  expect(rows).toMatchObject([
    { slot: '003', shown: 'ULL HL', receive: '145.6125', transmit: '−0.6', access: '88.5', power: '4 W' },
    { slot: '004', transmit: '=' },
    { slot: '005', transmit: '', power: '', scan: false, note: 'north' },
    { slot: '006', transmit: '431.250' },
  ]);
});

test('the place of a station stands beside it where it is not called by it already', () => {
  const from = { directory: 'relay-register', entry: 'RR-1', service: 'amateur', place: 'Ullsmere Hill' };
  const rows = paperRows(
    plan([
      channel(1, 145_600_000, { name: 'Ullsmere Hill', source: from }),
      channel(2, 145_625_000, { name: 'Q7ULH', source: from }),
    ]),
    ternP2,
  );
  expect(rows.map(({ place }) => place)).toEqual(['', 'Ullsmere Hill']);
});

test('every channel stands on one face of the card, in its order, and no face has more than it holds', () => {
  fc.assert(
    fc.property(fc.nat({ max: 900 }), (n) => {
      const rows = Array.from({ length: n }, (_, at) => at);
      const sheets = cardSheets(rows);
      expect(sheets.flat(2)).toEqual(rows);
      expect(sheets[0]![0]!.length).toBeLessThanOrEqual(CARD.rows - CARD.title);
      for (const faces of sheets) {
        expect(faces.length).toBeLessThanOrEqual(CARD.faces);
        for (const face of faces) expect(face.length).toBeLessThanOrEqual(CARD.rows);
      }
    }),
  );
  // eight faces of 27, the first three short: 213 on one sheet
  expect([cardSheets(Array(213).fill(0)).length, cardSheets(Array(214).fill(0)).length]).toEqual([1, 2]);
});
