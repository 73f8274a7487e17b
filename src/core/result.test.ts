import { fail, ok } from './result';

test('a success has a note only where there is one to make', () => {
  expect(Object.keys(ok(1))).toEqual(['ok', 'value']);
  expect(ok(1, 'mind')).toEqual({ ok: true, value: 1, note: 'mind' });
  expect(fail('Not so.')).toEqual({ ok: false, reason: 'Not so.' });
});
