'use client';

import clsx from 'clsx';
import { ChevronUp, Eye, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { ZONE_NAME_LIMIT, type Zone, type ZoneId } from '@/core/plan';
import { capital } from '@/core/text';
import { Button, Scroll } from '@/ui';
import { BesidesList } from './besides-list';
import { NameField } from './name-field';
import { RuleForm } from './rule-form';
import { TripForm } from './trip-form';
import { useDrop } from './use-drop';
import { zoneWord, type Organising } from './use-organise';

/** The zones of the plan, by this radio's word: dropped upon, filled by selection or by rule, renamed, ordered, shown alone. */
export function ZonesPane({
  organising,
  only,
  onOnly,
}: {
  organising: Organising;
  only: Zone | null;
  onOnly: (id: ZoneId | null) => void;
}) {
  const { plan, model, addZones } = organising;
  const word = zoneWord(organising);
  const { count } = model.zones!;
  const [form, setForm] = useState<'trip' | ZoneId | null>(null);
  const ruled = plan.zones.find(({ id }) => id === form);
  return (
    <aside
      aria-label={`${word}s`}
      className="flex w-[330px] shrink-0 flex-col rounded-md border border-line bg-sheet max-[1150px]:w-[280px]"
    >
      <div className="flex shrink-0 items-center gap-2 border-b border-line-strong px-3 py-1.5 text-[13px]">
        <h2 className="font-semibold capitalize">{word}s</h2>
        <span className="text-soft tabular-nums">
          {plan.zones.length} of {count}
        </span>
        <span className="flex-1" />
        <Button
          size="small"
          onClick={() => setForm(form === 'trip' ? null : 'trip')}
          aria-expanded={form === 'trip'}
        >
          Days of a trip
        </Button>
        <Button
          size="small"
          onClick={() =>
            addZones([
              {
                name: `${capital(word)} ${plan.zones.length + 1}`,
                members: [...organising.chosen],
              },
            ])
          }
        >
          New
        </Button>
      </div>
      {form === 'trip' && <TripForm organising={organising} onClose={() => setForm(null)} />}
      {ruled && (
        <RuleForm key={ruled.id} zone={ruled} organising={organising} onClose={() => setForm(null)} />
      )}
      <Scroll label={`All ${word}s`} className="flex-1">
        {plan.zones.length === 0 ? (
          <p className="p-3 text-[13px] text-soft">
            No {word} yet. Choose channels and press New, or let the days of a trip make one each.
          </p>
        ) : (
          <ol>
            {plan.zones.map((zone, at) => (
              <ZoneRow
                key={zone.id}
                zone={zone}
                at={at}
                organising={organising}
                shown={only?.id === zone.id}
                onShow={() => onOnly(only?.id === zone.id ? null : zone.id)}
                onRule={() => setForm(form === zone.id ? null : zone.id)}
              />
            ))}
          </ol>
        )}
      </Scroll>
      <div className="shrink-0 border-t border-line p-2.5 empty:hidden">
        <BesidesList organising={organising} kind="zone" />
      </div>
    </aside>
  );
}

function ZoneRow({
  zone,
  at,
  organising,
  shown,
  onShow,
  onRule,
}: {
  zone: Zone;
  at: number;
  organising: Organising;
  shown: boolean;
  onShow: () => void;
  onRule: () => void;
}) {
  const { plan, model, sides, chosen, toggleZone, addToZone, removeZone, run } = organising;
  const { over, handlers } = useDrop((ids) => addToZone(zone, ids));
  const word = zoneWord(organising);
  const beyond = at >= model.zones!.count;
  const held = new Set(zone.members);
  const on = (list: number) => plan.channels.filter((one) => one.list === list && held.has(one.id)).length;
  const all = chosen.size > 0 && [...chosen].every((id) => held.has(id));
  return (
    <li
      className={clsx('border-b border-line px-3 py-1.5', over && 'bg-wash', shown && 'bg-wash-faint')}
      {...handlers}
    >
      <div className="flex items-center gap-2">
        <span
          className={clsx(
            'mono w-5 shrink-0 rounded-[3px] border text-center text-[11.5px] leading-[17px]',
            beyond ? 'border-line text-soft' : 'border-ink',
          )}
        >
          {at + 1}
        </span>
        <NameField
          label={`Name of ${word} ${at + 1}`}
          name={zone.name}
          limit={ZONE_NAME_LIMIT}
          className="text-[14px] font-medium"
          onName={(next) =>
            run(
              { name: 'change', kind: 'zone', changes: [{ id: zone.id, set: { name: next } }] },
              `Named “${next}”.`,
            )
          }
        />
        <span className="whitespace-nowrap text-[12.5px] text-soft tabular-nums">
          {sides.length > 1
            ? sides.map((list) => `${model.lists[list]!.name.toLowerCase()} ${on(list)}`).join(' · ')
            : `${on(sides[0]!)}${model.zones!.members ? ` of ${model.zones!.members}` : ''}`}
        </span>
      </div>
      <div className="flex items-center gap-1 pl-7">
        <Button kind="quiet" size="small" disabled={chosen.size === 0} onClick={() => toggleZone(zone)}>
          {all ? 'Take the chosen out' : 'Put the chosen in'}
        </Button>
        <Button kind="quiet" size="small" onClick={onRule}>
          By rule
        </Button>
        <span className="flex-1" />
        <Button
          kind="quiet"
          size="icon"
          className="size-7!"
          aria-pressed={shown}
          aria-label={`Show only “${zone.name}”`}
          onClick={onShow}
        >
          <Eye size={14} className={shown ? 'text-receive' : 'text-soft'} aria-hidden />
        </Button>
        <Button
          kind="quiet"
          size="icon"
          className="size-7!"
          disabled={at === 0}
          aria-label={`Move “${zone.name}” up`}
          onClick={() =>
            run(
              { name: 'order', kind: 'zone', ids: [zone.id], before: plan.zones[at - 1]!.id },
              `“${zone.name}” is ${word} ${at} now.`,
            )
          }
        >
          <ChevronUp size={14} aria-hidden />
        </Button>
        <Button
          kind="quiet"
          size="icon"
          className="size-7!"
          aria-label={`Remove “${zone.name}”`}
          onClick={() => removeZone(zone.id, zone.name)}
        >
          <Trash2 size={13} className="text-soft" aria-hidden />
        </Button>
      </div>
      {beyond && (
        <p className="pl-7 text-[12.5px] text-soft">Kept in the plan; this radio has {model.zones!.count}.</p>
      )}
    </li>
  );
}
