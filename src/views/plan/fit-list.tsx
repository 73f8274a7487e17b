'use client';

import clsx from 'clsx';
import { item, ownFirst, useNames, type SideListProps } from './side-list';

const LEFT_OUT: Record<string, string> = {
  slot: 'its slot is not in this radio',
  'receive range': 'this radio does not tune there',
  'receive step': 'receive lies between the steps',
  'transmit step': 'transmit lies between the steps',
  mode: 'this radio lacks the mode',
  access: 'this radio lacks the tone or code',
};

/** What this radio changes, and what it cannot hold. */
export function FitList({ hand, active, onSelect }: SideListProps) {
  const names = useNames(hand);
  const { fit, model } = hand;
  if (fit.changes.length + fit.leftOut.length === 0)
    return <p className="p-3 text-[13px] text-soft">The {model.name} holds this plan as it stands.</p>;
  return (
    <ul aria-label="What this radio changes">
      {fit.leftOut.map(({ id, obstacles }) => (
        <li key={id} className={clsx(item, id === active && 'bg-wash-faint')}>
          <button type="button" className="text-left" onClick={() => onSelect(id, 'name')}>
            <span className="mono text-soft">{names.get(id)?.slot}</span>{' '}
            <span className="font-medium">{names.get(id)?.name}</span>
            <br />
            Left out: {obstacles.map((obstacle) => LEFT_OUT[obstacle]).join(', ')}.
          </button>
        </li>
      ))}
      {ownFirst(fit.changes, active).map((change) => (
        <li key={change.id + change.what} className={clsx(item, change.id === active && 'bg-wash-faint')}>
          <button
            type="button"
            className="w-full text-left"
            onClick={() => onSelect(change.id, change.what === 'transmit' ? 'tx' : change.what)}
          >
            <span className="flex gap-2">
              <span className="mono text-soft">{names.get(change.id)?.slot}</span>
              <span>{change.text}</span>
            </span>
            <span className="block pl-8 text-[12px] text-soft">{change.because}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
