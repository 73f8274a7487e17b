'use client';

import { useState } from 'react';
import type { Channel } from '@/core/plan';
import { Field } from '@/ui';
import { useDesk } from './desk';

/** The letters of all scripts come when somebody is about to type some: the page opens without them. */
const letters = () => import('@/core/plan/names');

/** The name on this radio, fitted by hand: it stays as typed until it is emptied, then the fitter finds one again. */
export function RadioName({ channel, shown }: { channel: Channel; shown: string }) {
  const { hand } = useDesk();
  const { id, names, name } = hand.model;
  const byHand = channel.fitted[id];
  const [text, setText] = useState(byHand ?? '');
  const keep = async () => {
    if (text === (byHand ?? '')) return;
    const { foldName } = await letters();
    const folded = foldName(text, names);
    if (folded === (byHand ?? '')) return setText(byHand ?? '');
    const { [id]: _, ...others } = channel.fitted;
    const fitted = folded === '' ? others : { ...others, [id]: folded.slice(0, names.length) };
    hand.store.apply({ name: 'change', changes: [{ id: channel.id, set: { fitted } }] });
  };
  return (
    <Field
      id="radio-name"
      className="flex-row! items-center justify-between [&_input]:mono [&_input]:h-7 [&_input]:w-32"
      label={`Name on the ${name}`}
      placeholder={shown}
      maxLength={names.length}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onFocus={() => void letters()}
      onBlur={() => void keep()}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setText(byHand ?? '');
      }}
    />
  );
}
