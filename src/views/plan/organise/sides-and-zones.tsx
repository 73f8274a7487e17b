'use client';

import { ArrowLeftRight } from 'lucide-react';
import { useState } from 'react';
import type { ZoneId } from '@/core/plan';
import { Button, Choice, Keys } from '@/ui';
import { NoChannels } from '../no-channels';
import { KnobPane } from './knob-pane';
import { ListPane } from './list-pane';
import { ZonesPane } from './zones-pane';
import { zoneWord, type Organising } from './use-organise';

/** Which band goes to which side, set once and done in one gesture. */
function Bands({ organising }: { organising: Organising }) {
  const { model, sides, bandsTo } = organising;
  const bands = model.bands.map(({ name }) => name);
  const [to, setTo] = useState<Record<string, string>>(() =>
    Object.fromEntries(bands.map((name, at) => [name, String(sides[Math.min(at, sides.length - 1)])])),
  );
  return (
    <div className="flex flex-wrap items-end gap-2">
      {bands.map((band) => (
        <Choice
          key={band}
          label={band}
          className="w-[92px]"
          value={to[band]!}
          options={sides.map((side) => [String(side), model.lists[side]!.name] as const)}
          onChange={(side) => setTo({ ...to, [band]: side })}
        />
      ))}
      <Button
        onClick={() =>
          bandsTo(Object.fromEntries(Object.entries(to).map(([band, side]) => [band, Number(side)])))
        }
      >
        <ArrowLeftRight size={14} aria-hidden />
        Sort by band
      </Button>
    </div>
  );
}

/** Both sides next to each other, and the banks beside them. */
export function SidesAndZones({ organising }: { organising: Organising }) {
  const { model, sides, chosen, carryTo, copyTo, plan } = organising;
  const [onlyId, setOnly] = useState<ZoneId | null>(null);
  const only = plan.zones.find(({ id }) => id === onlyId) ?? null;
  const [turnedId, setTurned] = useState<ZoneId | null>(null);
  const turned = plan.zones.find(({ id }) => id === turnedId) ?? plan.zones[0]!;
  const two = sides.length > 1;
  if (plan.channels.length === 0)
    return (
      <NoChannels planId={plan.id}>
        {two
          ? 'No channel yet. Here they will stand on both sides of the radio, to be carried across and put into banks.'
          : 'No channel yet. Here they will be put into banks, by hand, by rule or by the days of a trip.'}
      </NoChannels>
    );
  return (
    <>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col gap-2.5">
        {two && (
          <div className="flex flex-wrap items-end justify-between gap-x-4 gap-y-2">
            <div
              className="flex flex-wrap items-center gap-1.5 text-[13px] text-soft"
              role="toolbar"
              aria-label="Chosen channels"
            >
              {sides.map((side) => (
                <Button
                  key={side}
                  size="small"
                  disabled={chosen.size === 0}
                  onClick={() => carryTo(chosen, side)}
                >
                  Carry to the {model.lists[side]!.name.toLowerCase()}
                </Button>
              ))}
              {sides.map((side) => (
                <Button
                  key={side}
                  kind="quiet"
                  size="small"
                  disabled={chosen.size === 0}
                  onClick={() => copyTo(chosen, side)}
                >
                  Copy to the {model.lists[side]!.name.toLowerCase()}
                </Button>
              ))}
            </div>
            <Bands organising={organising} />
          </div>
        )}
        <div className="flex min-h-0 flex-1 gap-2.5">
          {sides.map((side) => (
            <ListPane key={side} list={side} organising={organising} only={only} />
          ))}
        </div>
        <p className="flex shrink-0 flex-wrap gap-x-4 gap-y-1 text-[12.5px] text-soft">
          <span className="flex items-center gap-1.5">
            <Keys keys="Space" /> choose
          </span>
          {two && (
            <>
              <span className="flex items-center gap-1.5">
                <Keys keys="X" /> carry across
              </span>
              <span className="flex items-center gap-1.5">
                <Keys keys="C" /> copy across
              </span>
            </>
          )}
          {model.zones && (
            <span className="flex items-center gap-1.5">
              <Keys keys="1" /> to <Keys keys="9" /> into that {zoneWord(organising)}, or out of it
            </span>
          )}
          <span>or drag; with Ctrl a copy is made</span>
        </p>
      </div>
      {model.zones?.knob && plan.zones.length > 0 && (
        <KnobPane organising={organising} zone={only ?? turned} onZone={setTurned} />
      )}
      {model.zones && <ZonesPane organising={organising} only={only} onOnly={setOnly} />}
    </>
  );
}
