'use client';

import { useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { useState } from 'react';
import { modelById, placeText } from '@/core/models';
import { formatFrequency, USUAL_REGION } from '@/core/radio';
import { Trouble } from '@/ui';
import { heldContent, RadioFace } from '@/views/parts';
import type { Radio } from '@/core/bench';

/** Where a channel is in the radio. */
const placeOf = ({ list, slot }: { list: number; slot: number }) => `${list} ${slot}`;

/** What the radio holds by its newest sealed copy, and what its display shows for the chosen slot. */
export function HeldPanel({ radio }: { radio: Radio }) {
  const model = modelById(radio.modelId)!;
  const [place, setPlace] = useState<string | null>(null);
  const held = useQuery(heldContent(radio));
  if (!held.data) return null;
  if (!held.data.ok) return <Trouble>{held.data.reason}</Trouble>;
  const { channels, talkgroups, settings } = held.data.value;
  const chosen = channels.find((channel) => placeOf(channel) === place) ?? channels[0] ?? null;
  return (
    <section aria-label="What it holds" className="flex min-h-0 flex-1 flex-col gap-3">
      <RadioFace
        channel={chosen}
        model={model}
        region={USUAL_REGION}
        settings={settings}
        talkgroup={talkgroups.find(({ number }) => number === chosen?.digital?.talkgroup)?.name}
      />
      <div className="flex min-h-0 flex-1 flex-col rounded-md border border-line bg-sheet">
        <h3 className="border-b border-line px-3 py-1.5 text-[13px]">
          <b className="font-semibold">{channels.length} channels</b>{' '}
          <span className="text-soft">by its newest copy</span>
        </h3>
        <ul className="min-h-0 flex-1 overflow-y-auto">
          {channels.map((channel) => (
            <li key={placeOf(channel)}>
              <button
                type="button"
                aria-pressed={channel === chosen}
                onClick={() => setPlace(placeOf(channel))}
                className={clsx(
                  'mono flex w-full gap-3 border-b border-line px-3 py-1 text-left text-[13px]',
                  channel === chosen ? 'bg-wash' : 'hover:bg-sunk',
                )}
              >
                <span className="shrink-0 text-soft">{placeText(model, channel)}</span>
                <span className="min-w-0 flex-1 truncate">{channel.name || '–'}</span>
                <span className="text-receive">{formatFrequency(channel.rx)}</span>
              </button>
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
