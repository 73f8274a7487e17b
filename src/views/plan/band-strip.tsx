'use client';

import { memo, useDeferredValue, useMemo, useRef } from 'react';
import { rulers, type OwnerGrade, type Ruler, type Rules } from '@/core/radio';
import type { Channel, ChannelId, ScanEdge } from '@/core/plan';
import { useStable } from '@/ui';
import { BandRuler } from './band-ruler';
import { useDesk } from './desk';

/** Room on the strip grows with what is on a ruler, but slower, so that a lone frequency keeps a readable ruler. */
const weight = ({ count }: Ruler) => 1 + Math.sqrt(count);

/** How wide the strip is in a window of 1280 px, and a ruler at least; a wider window gives its figures more room. */
const STRIP_PX = 1080;
const LEAST_PX = 92;

const NO_EDGES: readonly ScanEdge[] = [];

interface StripProps {
  channels: readonly Channel[];
  edges: readonly ScanEdge[];
  rules: Rules;
  grade: OwnerGrade;
  chosen: ReadonlySet<ChannelId>;
  active: ChannelId | null;
  onPick: (ids: ChannelId[]) => void;
}

const Strip = memo(function Strip({ channels, edges, rules, grade, chosen, active, onPick }: StripProps) {
  const drawn = useMemo(
    () =>
      rulers(
        channels.flatMap(({ rx, tx }) => (tx === null ? [rx] : [rx, tx])),
        rules,
      ),
    [channels, rules],
  );
  if (drawn.length === 0) return null;
  const all = drawn.reduce((sum, ruler) => sum + weight(ruler), 0);
  return (
    <div role="group" aria-label="Bands of this plan" className="flex gap-2.5 max-lg:flex-wrap">
      {drawn.map((ruler, index) => (
        <div key={index} className="min-w-[92px]" style={{ flex: `${weight(ruler)} 1 0` }}>
          <BandRuler
            ruler={ruler}
            px={Math.max(LEAST_PX, (weight(ruler) / all) * STRIP_PX)}
            channels={channels}
            rules={rules}
            grade={grade}
            edges={edges}
            chosen={chosen}
            active={active}
            onPick={onPick}
          />
        </div>
      ))}
    </div>
  );
});

/** The channels as they were while each receives and sends where it did: a name or a tone changes nothing on the strip. */
function useFrequencies(channels: readonly Channel[]): readonly Channel[] {
  const last = useRef(channels);
  const same =
    last.current.length === channels.length &&
    last.current.every((was, place) => {
      const is = channels[place]!;
      return was === is || (was.id === is.id && was.rx === is.rx && was.tx === is.tx);
    });
  if (!same) last.current = channels;
  return last.current;
}

/** The bands that this plan uses, drawn to scale: receive ticks rise, transmit ticks hang, an arc joins the two. */
export function BandStrip() {
  const { hand, table } = useDesk();
  const pick = useStable((ids: ChannelId[]) => {
    const [first] = ids;
    if (!first) return;
    table.select(first, 'rx');
    if (ids.length > 1) {
      const row = table.rows.findIndex((channel) => channel.id === first);
      const cell = { row: Math.max(0, row), column: 'rx' as const };
      table.setSelection({ active: cell, anchor: cell, added: new Set(ids) });
    }
  });
  // Drawn after the table: whoever types or walks through the table never waits for the strip.
  const chosen = useDeferredValue(table.chosen);
  const active = useDeferredValue(table.active?.id ?? null);
  const { channels, owner, scanEdges } = useDeferredValue(hand.plan);
  return (
    <Strip
      channels={useFrequencies(channels)}
      edges={hand.model.scanEdges ? scanEdges : NO_EDGES}
      rules={owner}
      grade={owner.grade}
      chosen={chosen}
      active={active}
      onPick={pick}
    />
  );
}
