'use client';

import { useState } from 'react';
import type { Channel, ChannelSet } from '@/core/plan';
import { Field } from '@/ui';
import type { PlanInHand } from './use-plan';

/** What a person wants to remember of a channel, whether it ever falls silent, and whether it works a satellite; none of it goes into the radio. */
export function ChannelNote({ channel, hand }: { channel: Channel; hand: PlanInHand }) {
  const [note, setNote] = useState(channel.note);
  const set = (change: ChannelSet) =>
    hand.store.apply({ name: 'change', changes: [{ id: channel.id, set: change }] });
  return (
    <div className="flex flex-col gap-2 text-[13px] text-soft">
      <Field
        id="channel-note"
        className="min-w-0 flex-row! items-center [&_input]:h-7 [&_input]:min-w-0 [&_input]:flex-1 [&_input]:text-[13px]"
        label="Note"
        maxLength={500}
        value={note}
        onChange={(event) => setNote(event.target.value)}
        onBlur={() => note !== channel.note && set({ note })}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') setNote(channel.note);
        }}
      />
      <div className="flex gap-4">
        <label
          className="flex items-center gap-1.5 whitespace-nowrap"
          title="A broadcast or a beacon: it stops a scan"
        >
          <input
            type="checkbox"
            className="accent-ink"
            checked={channel.alwaysOn}
            onChange={(event) => set({ alwaysOn: event.target.checked })}
          />
          never silent
        </label>
        <label
          className="flex items-center gap-1.5 whitespace-nowrap"
          title="Its two sides are the way up to a satellite and the way down"
        >
          <input
            type="checkbox"
            className="accent-ink"
            checked={channel.satellite ?? false}
            onChange={(event) => set({ satellite: event.target.checked })}
          />
          satellite
        </label>
      </div>
    </div>
  );
}
