import { isDigital, MODES, parsePoint, parsePower } from '.';

test('the modes whose access is no tone', () =>
  expect(MODES.filter(isDigital)).toEqual(['DMR', 'P25', 'C4FM', 'NXDN']));

test('what is not understood is said as it was typed, without the white space around it', () => {
  expect(parsePower('  strong ')).toMatchObject({
    reason: '“strong” is not a power. Write watts, such as 4 W or 500 mW.',
  });
  for (const text of ['4 X', '', 'W', '4 W 5']) expect(parsePower(text).ok).toBe(false);
  const place = parsePoint('  nowhere ');
  expect(!place.ok && place.reason).toContain('“nowhere”');
  // two letters are no square, however they are read
  expect(parsePoint('HO').ok).toBe(false);
});
