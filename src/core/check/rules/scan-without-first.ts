import { recordRule } from '../finding';
import { setScanList } from '../record-mends';

/** A scan list that answers on its first priority, and has none. */
export const scanWithoutFirst = recordRule(
  'scan-without-first',
  'scan lists that answer on a priority that they have not',
  ['scanList'],
  function* (context) {
    const { plan, model } = context;
    if (!model.scanLists!.answers.includes('first')) return;
    for (const list of plan.scanLists)
      if (list.answers === 'first' && list.first === null)
        yield {
          ...{ kind: 'scanList', id: list.id, severity: 'caution' },
          text: `“${list.name}” answers on its first priority, and has none: a press of the key goes nowhere that is sure.`,
          mends: () => [setScanList('Answer where it stopped', list, { answers: 'heard' })],
        };
  },
  ({ scanLists }) => scanLists !== undefined,
);
