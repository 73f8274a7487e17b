import { splitRoute } from './split-route';

test.each([
  ['Ketterby > Garrowick > Norrast', ['Ketterby', 'Garrowick', 'Norrast']],
  ['Ketterby, Garrowick; Norrast → Stennick', ['Ketterby', 'Garrowick', 'Norrast', 'Stennick']],
  ['52.06, -29.84 > HO52bb, Norrast', ['52.06, -29.84', 'HO52bb', 'Norrast']],
  [' > Ketterby >> ', ['Ketterby']],
  ['', []],
])('%j', (typed, places) => expect(splitRoute(typed)).toEqual(places));
