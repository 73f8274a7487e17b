import { useState } from 'react';
import { Button, Choice } from '@/ui';
import type { Lying } from './bench';

type Kind =
  | 'none'
  | 'pull'
  | 'flip'
  | 'silent'
  | 'wrong model'
  | 'newer firmware'
  | 'refuse'
  | 'slow'
  | 'rubbish';

const KINDS: readonly (readonly [Kind, string])[] = [
  ['none', 'Nothing goes wrong'],
  ['pull', 'The cable slips in the middle'],
  ['flip', 'One bit is flipped on the line'],
  ['silent', 'It falls silent'],
  ['wrong model', 'It says that it is another model'],
  ['newer firmware', 'It has a newer firmware'],
  ['refuse', 'It refuses to be written'],
  ['slow', 'Its line is ten times as slow'],
  ['rubbish', 'It sends rubbish'],
];

/** What can go wrong with a card. */
const WITH_CARD: readonly (readonly [Kind, string])[] = [
  ['none', 'Nothing goes wrong'],
  ['pull', 'The card is taken out in the middle'],
  ['wrong model', 'It says that it is another model'],
  ['newer firmware', 'It has a newer firmware'],
  ['refuse', 'It is locked and loads nothing'],
];

/** What is ordered for each; bytes are counted on the way to the radio, from now on. */
const ORDERS: Record<Kind, (atByte: number) => object> = {
  none: () => ({ kind: 'none' }),
  pull: (atByte) => ({ kind: 'pull', atByte }),
  flip: (atByte) => ({ kind: 'flip', atByte }),
  silent: () => ({ kind: 'silent' }),
  'wrong model': () => ({ kind: 'wrong model', ident: 'OTHERSET' }),
  'newer firmware': () => ({ kind: 'newer firmware', version: '9.01' }),
  refuse: () => ({ kind: 'refuse' }),
  slow: () => ({ kind: 'slow', factor: 10 }),
  rubbish: () => ({ kind: 'rubbish' }),
};

/** The drawer of mishaps: what is to go wrong with a radio next. */
export function Mishaps({ radio, order }: { radio: Lying; order: (body: object) => void }) {
  const [kind, setKind] = useState<Kind>('pull');
  const [atByte, setAtByte] = useState('5000');
  const counts = kind === 'pull' || kind === 'flip';
  const kinds = radio.card ? WITH_CARD : KINDS;
  const waits = radio.fault.kind !== 'none';
  return (
    <details className="border-t border-line text-[13px]">
      <summary className="px-3 py-1.5">
        Mishaps{' '}
        <span className={waits ? 'text-caution' : 'text-soft'}>
          {waits
            ? (kinds.find(([one]) => one === radio.fault.kind)?.[1] ?? radio.fault.kind)
            : 'none ordered'}
        </span>
      </summary>
      <div className="flex flex-wrap items-end gap-2 px-3 pb-2">
        <Choice label="Next" value={kind} options={kinds} onChange={setKind} className="w-52" />
        {counts && (
          <label className="text-[12px] text-soft">
            at byte
            <input
              className="mono block w-20 rounded-md border border-line-strong bg-sheet px-2 py-1 text-[13px] text-ink"
              inputMode="numeric"
              value={atByte}
              onChange={(event) => setAtByte(event.target.value.replace(/\D/g, '').slice(0, 7))}
            />
          </label>
        )}
        <Button size="small" onClick={() => order(ORDERS[kind](Math.max(1, Number(atByte))))}>
          Order it
        </Button>
      </div>
    </details>
  );
}
