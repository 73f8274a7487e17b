'use client';

import { useState } from 'react';
import type { Channel, ChannelSet } from '@/core/plan';
import { Field, TickField } from '@/ui';
import { useDesk } from './desk';

/** What a person wants to remember of a channel, whether it ever falls silent, and whether it works a satellite; none of it goes into the radio. */
export function ChannelNote({ channel }: { channel: Channel }) {
  const { hand } = useDesk();
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
        <TickField
          className="whitespace-nowrap"
          title="A broadcast or a beacon: it stops a scan"
          checked={channel.alwaysOn}
          onChange={(alwaysOn) => set({ alwaysOn })}
        >
          never silent
        </TickField>
        <TickField
          className="whitespace-nowrap"
          title="Its two sides are the way up to a satellite and the way down"
          checked={channel.satellite ?? false}
          onChange={(satellite) => set({ satellite })}
        >
          satellite
        </TickField>
      </div>
    </div>
  );
}
