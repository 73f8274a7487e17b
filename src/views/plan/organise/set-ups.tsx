'use client';

import clsx from 'clsx';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { newSide, setUpDifference, sideSentence } from '@/core/organise';
import {
  slotText,
  SET_UP_NAME_LIMIT,
  SIDE_WORDS,
  type SetUp,
  type SetUpId,
  type SetUpSide,
} from '@/core/plan';
import { capital } from '@/core/text';
import { Button, Choice, Field, Tick } from '@/ui';
import { BesidesList } from './besides-list';
import { NameField } from './name-field';
import { newId, zoneWord, type Organising } from './use-organise';

/** Quick set-ups as cards side by side: what each will do on each side, in a sentence, and what it is made of. */
export function SetUps({ organising }: { organising: Organising }) {
  const { plan, model, sides, run } = organising;
  const { count } = model.setUps!;
  const [compared, setCompared] = useState<readonly SetUpId[]>([]);
  const pair = compared.flatMap((id) => plan.setUps.find((one) => one.id === id) ?? []);
  const differing = pair.length === 2 ? setUpDifference(pair[0]!, pair[1]!) : null;
  const shown = differing ? pair : plan.setUps;
  const add = () =>
    run(
      {
        name: 'put',
        kind: 'setUp',
        records: [{ id: newId.setUp(), name: `Set-up ${plan.setUps.length + 1}`, sides: sides.map(newSide) }],
        before: null,
      },
      'Added a quick set-up.',
    );
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col gap-2.5">
      <div className="flex shrink-0 items-center gap-3 text-[13px] text-soft">
        <Button onClick={add} disabled={plan.setUps.length >= 100}>
          New quick set-up
        </Button>
        <span className="tabular-nums">
          {plan.setUps.length} of {count}
        </span>
        <span role="status">
          {differing
            ? differing.length === 0
              ? 'Both do the same.'
              : `“${pair[0]!.name}” and “${pair[1]!.name}” differ in ${differing.length === 1 ? 'one thing' : `${differing.length} things`}; only these are shown.`
            : compared.length === 1
              ? 'Tick another one to compare the two.'
              : plan.setUps.length > 1
                ? 'Tick two to see only what differs.'
                : ''}
        </span>
        {compared.length > 0 && (
          <Button kind="quiet" size="small" onClick={() => setCompared([])}>
            Show all
          </Button>
        )}
      </div>
      {plan.setUps.length === 0 ? (
        <p className="max-w-[60ch] text-[14px] text-soft">
          A quick set-up puts both sides into a state with one key: which bank, where it begins, what a scan
          skips. Make one for each way in which you use the radio.
        </p>
      ) : (
        <ol className="flex min-h-0 flex-1 items-start gap-3 overflow-auto pb-1">
          {shown.map((setUp) => (
            <Card
              key={setUp.id}
              setUp={setUp}
              number={plan.setUps.indexOf(setUp) + 1}
              organising={organising}
              compared={compared.includes(setUp.id)}
              only={differing}
              onCompare={() =>
                setCompared((now) =>
                  now.includes(setUp.id) ? now.filter((id) => id !== setUp.id) : [...now.slice(-1), setUp.id],
                )
              }
            />
          ))}
        </ol>
      )}
    </div>
  );
}

function Card({
  setUp,
  number,
  organising,
  compared,
  only,
  onCompare,
}: {
  setUp: SetUp;
  number: number;
  organising: Organising;
  compared: boolean;
  /** What alone is shown; null for all. */
  only: ReturnType<typeof setUpDifference> | null;
  onCompare: () => void;
}) {
  const { plan, model, sides, run } = organising;
  const change = (set: Partial<Pick<SetUp, 'name' | 'sides'>>, done: string) =>
    run({ name: 'change', kind: 'setUp', changes: [{ id: setUp.id, set }] }, done);
  const setSide = (at: number, set: Partial<SetUpSide>) =>
    change(
      {
        sides: sides.map((_, n) => ({ ...(setUp.sides[n] ?? newSide()), ...(n === at ? set : {}) })),
      },
      `Changed “${setUp.name}”.`,
    );
  const beyond = number > model.setUps!.count;
  return (
    <li
      className={clsx(
        'flex w-[268px] shrink-0 flex-col gap-3 rounded-md border bg-sheet p-3.5',
        compared ? 'border-ink' : 'border-line',
      )}
    >
      <div className="flex items-center gap-2">
        <span className="mono grid size-6 shrink-0 place-items-center rounded border border-ink text-[13px]">
          {number}
        </span>
        <NameField
          label={`Name of quick set-up ${number}`}
          name={setUp.name}
          limit={SET_UP_NAME_LIMIT}
          className="text-[15px] font-semibold"
          onName={(next) => change({ name: next }, `Named “${next}”.`)}
        />
        <Tick aria-label={`Compare “${setUp.name}”`} checked={compared} onCheckedChange={onCompare} />
        <Button
          kind="quiet"
          size="icon"
          className="size-7!"
          aria-label={`Remove “${setUp.name}”`}
          onClick={() =>
            run(
              { name: 'remove', kind: 'setUp', ids: [setUp.id] },
              `Removed “${setUp.name}”. Ctrl Z brings it back.`,
            )
          }
        >
          <Trash2 size={13} className="text-soft" aria-hidden />
        </Button>
      </div>
      {beyond && (
        <p className="text-[12.5px] text-soft">Kept in the plan; this radio has {model.setUps!.count}.</p>
      )}
      {sides.map((list, at) => (
        <section
          key={list}
          aria-label={`${model.lists[list]!.name} side of “${setUp.name}”`}
          className="flex flex-col gap-2 border-t border-line pt-2.5"
        >
          <p className="text-[14px] leading-snug">
            <b className="font-semibold">{model.lists[list]!.name}:</b>{' '}
            {sideSentence(setUp.sides[at], list, plan, model)}
          </p>
          <SideFields
            side={setUp.sides[at] ?? newSide()}
            list={list}
            organising={organising}
            shows={(field) => !only || only.some((one) => one.side === at && one.field === field)}
            onSet={(set) => setSide(at, set)}
          />
        </section>
      ))}
      <BesidesList organising={organising} kind="setUp" id={setUp.id} />
    </li>
  );
}

const words = Object.fromEntries(SIDE_WORDS) as Record<keyof SetUpSide, string>;
const label = (field: keyof SetUpSide, word: string) => capital(field === 'zone' ? word : words[field]);

function SideFields({
  side,
  list,
  organising,
  shows,
  onSet,
}: {
  side: SetUpSide;
  list: number;
  organising: Organising;
  shows: (field: keyof SetUpSide) => boolean;
  onSet: (set: Partial<SetUpSide>) => void;
}) {
  const { plan } = organising;
  const word = zoneWord(organising);
  const [dial, setDial] = useState<string | null>(null);
  const onList = plan.channels.filter((channel) => channel.list === list);
  const zone = plan.zones.find(({ id }) => id === side.zone);
  const inZone = zone ? onList.filter(({ id }) => zone.members.includes(id)) : onList;
  // A first channel that the bank does not hold stays to be seen.
  const starts = inZone.some(({ id }) => id === side.start)
    ? inZone
    : [...inZone, ...onList.filter(({ id }) => id === side.start)];
  const memory = side.begins === 'memory';
  const dialBad = dial !== null && !/^[0-9A-D*#]{0,16}$/i.test(dial);
  return (
    <div className="grid grid-cols-2 gap-2">
      {shows('begins') && (
        <Choice
          className="col-span-2"
          label={label('begins', word)}
          value={side.begins}
          options={[
            ['memory', 'A channel of its list'],
            ['home', 'Its home channel'],
            ['dial', 'The dial'],
          ]}
          onChange={(begins) => onSet({ begins })}
        />
      )}
      {memory && shows('zone') && (
        <Choice
          className="col-span-2"
          label={label('zone', word)}
          value={side.zone ?? 'all'}
          options={[
            ['all', 'All of the side'],
            ...plan.zones.map(({ id, name }) => [id as string, name] as const),
          ]}
          onChange={(id) => onSet({ zone: plan.zones.find((one) => one.id === id)?.id ?? null })}
        />
      )}
      {memory && shows('start') && (
        <Choice
          className="col-span-2"
          label={label('start', word)}
          value={side.start ?? 'first'}
          options={[
            ['first', 'Where it begins'],
            ...starts.map(
              ({ id, slot, name }) => [id as string, `${slotText(slot)} ${name || 'no name'}`] as const,
            ),
          ]}
          onChange={(id) => onSet({ start: onList.find((one) => one.id === id)?.id ?? null })}
        />
      )}
      {memory && shows('scanning') && (
        <Choice
          label={label('scanning', word)}
          value={side.scanning ? 'yes' : 'no'}
          options={[
            ['no', 'No'],
            ['yes', 'Yes'],
          ]}
          onChange={(scanning) => onSet({ scanning: scanning === 'yes' })}
        />
      )}
      {memory && shows('skipSet') && (
        <Choice
          label={label('skipSet', word)}
          value={side.skipSet ?? 'none'}
          options={[['none', 'None'], ...plan.skipSets.map(({ id, name }) => [id as string, name] as const)]}
          onChange={(id) => onSet({ skipSet: plan.skipSets.find((one) => one.id === id)?.id ?? null })}
        />
      )}
      {side.begins !== 'dial' && shows('shows') && (
        <Choice
          label={label('shows', word)}
          value={side.shows}
          options={[
            ['name', 'Names'],
            ['frequency', 'Frequencies'],
          ]}
          onChange={(next) => onSet({ shows: next })}
        />
      )}
      {side.begins !== 'dial' && shows('autoDial') && (
        <Field
          label={label('autoDial', word)}
          value={dial ?? side.autoDial}
          maxLength={16}
          onChange={(event) => setDial(event.target.value)}
          onBlur={() => {
            if (dial !== null && !dialBad && dial.toUpperCase() !== side.autoDial)
              onSet({ autoDial: dial.toUpperCase() });
            if (!dialBad) setDial(null);
          }}
          problem={dialBad ? '0–9, A–D, * and #' : undefined}
        />
      )}
    </div>
  );
}
