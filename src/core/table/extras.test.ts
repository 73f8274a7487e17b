import { channel } from '../samples.test.kit';
import { digital, groupId, receiveId, scanId } from '../digital.test.kit';
import { byChannel } from '../heard';
import { extraText, EXTRAS } from '.';

const source = {
  directory: 'register',
  entry: 'a',
  service: 'amateur',
  call: 'Q7UL',
  place: 'Ullsmere',
  lat: 53,
  lon: -30,
};
const hill = channel(3, 145_612_500, { source, tags: ['sea', 'North Coast'], note: 'weak' });
const heard = byChannel([{ channel: hill.id, times: 3, last: '2026-11-20T09:30:00.000Z', weeks: [] }]);
const lists = {
  talkgroups: [{ id: groupId(1), name: 'Isles', number: 100, call: 'group' as const }],
  receiveLists: [{ id: receiveId(1), name: 'North', members: [groupId(1)] }],
  scanLists: [],
};
const at = (home: string, unit: 'km' | 'mi' = 'km', of = hill) =>
  Object.fromEntries(
    EXTRAS.map((extra) => [
      extra,
      extraText(of, extra, { home, unit, heard, lists, day: (moment) => moment.slice(0, 10) }),
    ]),
  );

test('what is known of the station, seen from home', () => {
  // HO52 is the square of 2 by 1 degrees from 52 N 30 W: its middle is 52.5 N 29 W. One degree of latitude is 111.195 km, so that it
  // is 55.6 km north and 1 x cos(52.75) x 111.195 = 67.3 km west: 87.3 km, by atan(67.3 / 55.6) = 50.4 west of north.
  expect(at('HO52')).toEqual({
    call: 'Q7UL',
    place: 'Ullsmere',
    source: 'register',
    locator: 'HO53aa',
    distance: '87.3 km',
    bearing: expect.stringMatching(/^3(09|10)° NW$/),
    heard: '2026-11-20, 3 times',
    calls: '',
    hears: '',
    scans: '',
    tags: '#sea #North Coast',
    note: 'weak',
  });
  expect(at('HO52', 'mi').distance).toBe('54.2 mi');
});

test('without a home, a place or a source it says nothing', () => {
  expect([at('').distance, at('').bearing, at('nowhere').distance]).toEqual(['', '', '']);
  expect(at('HO52', 'km', channel(1, 145_500_000))).toEqual({
    call: '',
    place: '',
    source: '',
    locator: '',
    distance: '',
    bearing: '',
    heard: '',
    calls: '',
    hears: '',
    scans: '',
    tags: '',
    note: '',
  });
});

test('whom a digital channel calls, hears and scans, by name; nothing where a name is gone', () => {
  const calls = digital(1, { talkgroup: groupId(1), receiveList: receiveId(1), scanList: scanId(9) });
  expect(at('', 'km', calls)).toMatchObject({ calls: 'Isles', hears: 'North', scans: '' });
});
