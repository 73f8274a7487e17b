'use client';

import clsx from 'clsx';
import { callNumberText } from '@/core/plan';
import { Button, Choice, Field, Moment, Scroll, TickField, Trouble } from '@/ui';
import { CutChart } from './cut-chart';
import { IntoRadio } from './into-radio';
import { PERIODS, type Choosing, type Period } from './use-choose';

const grouped = (n: number) => n.toLocaleString('en');
const TEMPLATES = ['{call} {first}', '{call}', '{first} {call}', '{call} {name}', '{name}', '{call} {town}'];

/** People chosen for a radio: ranked by what is heard of them, cut where the radio or the person says, named by a template. */
export function ChoosePane({ choosing, rollPeople }: { choosing: Choosing; rollPeople: number }) {
  const { board, load, loading, stop, digital, plan, ranked } = choosing;
  const of = board.data?.board ?? null;
  const told = board.data?.load ?? null;
  if (board.error) return <Trouble>{board.error.message}</Trouble>;
  if (board.data && !of)
    return (
      <section
        aria-label="No key-ups yet"
        className="m-auto flex max-w-md flex-col items-center gap-3 text-center"
      >
        <h2 className="text-[17px] font-semibold">Who of them is ever heard?</h2>
        <p className="text-soft">
          The Heard Board has who keyed up on which talkgroup, and when. By it people are ranked, and the few
          that make up nearly all of what you hear are found.
        </p>
        {told && <p role="status">{told.message}</p>}
        {loading ? (
          <Button onClick={() => stop.mutate()}>Stop</Button>
        ) : (
          <Button kind="strong" disabled={load.isPending} onClick={() => load.mutate()}>
            Load the Heard Board
          </Button>
        )}
        {load.error && <Trouble>{load.error.message}</Trouble>}
      </section>
    );
  if (!of) return null;
  if (digital.length === 0)
    return (
      <p className="max-w-[60ch] text-[14px]">
        No plan is for a radio that knows people. Make one for a digital radio under Plans.
      </p>
    );
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[250px_minmax(0,1fr)_290px] gap-3 max-lg:grid-cols-1">
      <Rule choosing={choosing} />
      <section
        aria-label="The cut"
        className="flex min-h-0 flex-col gap-2 rounded-md border border-line bg-sheet p-4"
      >
        {ranked.data && plan && <Cut choosing={choosing} />}
        {ranked.error && <Trouble>{ranked.error.message}</Trouble>}
        <p className="mt-auto text-[12.5px] text-soft">
          {grouped(of.keyUps)} key-ups from {of.from} to {of.to}, loaded <Moment at={of.at} />.{' '}
          {of.odd.count > 0 && `${grouped(of.odd.count)} rows were odd. `}
          {loading ? (
            <>
              {told?.message}{' '}
              <Button size="small" onClick={() => stop.mutate()}>
                Stop
              </Button>
            </>
          ) : (
            <Button size="small" kind="quiet" onClick={() => load.mutate()}>
              Load it anew
            </Button>
          )}
          {told?.state === 'failed' && <span className="text-stop"> {told.message}</span>}
        </p>
      </section>
      <Chosen {...{ choosing, rollPeople }} />
    </div>
  );
}

/** By what they are ranked. */
function Rule({ choosing }: { choosing: Choosing }) {
  const { digital, planId, setPlanId, board, groups, setGroups, period, setPeriod } = choosing;
  const { everybody, setEverybody, reserve, setReserve, room, plan, model, apart } = choosing;
  const of = board.data!.board!;
  const names = new Map(plan?.talkgroups.map(({ number, name }) => [number, name]));
  const others = plan?.talkgroups.filter(({ call }) => call !== 'private').length ?? 0;
  return (
    <section
      aria-label="By what they are ranked"
      className="flex min-h-0 flex-col gap-3 rounded-md border border-line bg-sheet p-3 text-[13px]"
    >
      <Choice
        label="For the plan"
        value={planId ?? ''}
        options={digital.map(({ id, name }) => [id as string, name] as const)}
        onChange={(id) => setPlanId(digital.find((one) => one.id === id)!.id)}
      />
      {model && plan && (
        <p className="text-soft">
          {apart
            ? `The ${model.name} has room for ${grouped(room)} people, apart from its talkgroups.`
            : `The ${model.name} has room for ${model.digital!.talkgroups.count}, less ${others} talkgroups, less the reserve: ${grouped(room)} people.`}
        </p>
      )}
      {!apart && (
        <Field
          className="w-28"
          label="Kept free"
          inputMode="numeric"
          value={String(reserve)}
          onChange={(event) =>
            setReserve(Math.min(10_000, Number(event.target.value.replace(/\D/g, '')) || 0))
          }
        />
      )}
      <Choice
        label="Heard in"
        value={period}
        options={PERIODS}
        onChange={(next) => setPeriod(next as Period)}
      />
      <TickField checked={everybody} onChange={setEverybody}>
        also who is not in the roll
      </TickField>
      <div className="flex min-h-0 flex-1 flex-col">
        <h2 className="pb-1 font-semibold">
          On the talkgroups{' '}
          <span className="font-normal text-soft">{groups.size === 0 ? 'all' : groups.size}</span>
        </h2>
        <Scroll label="Talkgroups" className="min-h-24 flex-1 rounded-md border border-line">
          <ul>
            {of.talkgroups.slice(0, 300).map(({ number, keyUps }) => (
              <li key={number} className="border-b border-line px-2 py-1 last:border-0">
                <TickField
                  checked={groups.has(number)}
                  onChange={(on) => {
                    const next = new Set(groups);
                    if (on) next.add(number);
                    else next.delete(number);
                    setGroups(next);
                  }}
                >
                  <span className="font-medium">{names.get(number) ?? callNumberText(number)}</span>{' '}
                  <span className="text-[12px] text-soft tabular-nums">{grouped(keyUps)}</span>
                </TickField>
              </li>
            ))}
          </ul>
        </Scroll>
      </div>
    </section>
  );
}

/** The curve, and what the cut comes to in a sentence. */
function Cut({ choosing }: { choosing: Choosing }) {
  const { ranked, room, taken, setCut, people, covered } = choosing;
  const { curve, keyUps, left } = ranked.data!;
  const share = keyUps === 0 ? 0 : (covered / keyUps) * 100;
  return (
    <>
      <p className="text-[19px] font-semibold" role="status">
        {grouped(taken)} people are {share.toFixed(1)}% of what you hear
      </p>
      <p className="text-[13px] text-soft">
        Of {grouped(people)} who were heard, pinned first, then whoever keyed up most.{' '}
        {left.numbers > 0 &&
          `${grouped(left.numbers)} numbers are no people, repeaters among them, and are left out with ${grouped(left.keyUps)} key-ups.`}
      </p>
      <CutChart {...{ curve, people, keyUps, room, cut: taken, onCut: setCut }} />
    </>
  );
}

/** Who is chosen, as the radio will show them, and the button that does it. */
function Chosen({ choosing, rollPeople }: { choosing: Choosing; rollPeople: number }) {
  const { chosen, taken, template, setTemplate, templateTrouble, worst } = choosing;
  const { made, put, apart, plan, model, shownName } = choosing;
  return (
    <section
      aria-label="Who is chosen"
      className="flex min-h-0 flex-col rounded-md border border-line bg-sheet text-[13px]"
    >
      <div className="shrink-0 border-b border-line p-3">
        <Field
          label="Shown as"
          value={template}
          maxLength={80}
          spellCheck={false}
          {...(templateTrouble !== null && { id: 'shown-as', problem: templateTrouble })}
          onChange={(event) => setTemplate(event.target.value)}
        />
        <div role="group" aria-label="Names as they are often shown" className="flex flex-wrap gap-1 pt-1.5">
          {TEMPLATES.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={one === template}
              className={clsx(
                'mono rounded border px-1.5 py-0.5 text-[11.5px]',
                one === template ? 'border-ink bg-wash-faint' : 'border-line text-soft',
              )}
              onClick={() => setTemplate(one)}
            >
              {one}
            </button>
          ))}
        </div>
        {worst.length > 0 && (
          <div className="pt-2">
            <h2 className="text-[12px] font-semibold text-soft">Cut the most on this radio</h2>
            <ul>
              {worst.slice(0, 3).map(({ id, wanted, shown }) => (
                <li key={id} className="truncate">
                  <span className="mono">{shown}</span> <span className="text-soft">of {wanted}</span>
                </li>
              ))}
            </ul>
          </div>
        )}
      </div>
      <Scroll label="Those who are chosen" className="flex-1">
        <ol>
          {chosen.slice(0, 200).map((person, at) => (
            <li key={person.id} className="flex items-baseline gap-2 border-b border-line px-3 py-0.5">
              <span className="mono w-8 text-right text-[12px] text-soft">{at + 1}</span>
              <span className="min-w-0 flex-1 truncate font-medium">{shownName(at)}</span>
              <span className="mono text-[11.5px] text-soft">{person.id}</span>
              <span className="mono w-12 text-right text-[12px]">{grouped(person.keyUps)}</span>
            </li>
          ))}
        </ol>
        {taken > 200 && <p className="px-3 py-1 text-soft">and {grouped(taken - 200)} more</p>}
      </Scroll>
      <div className="flex shrink-0 flex-col gap-1.5 border-t border-line p-3">
        {apart && model ? (
          <IntoRadio {...{ choosing, model, rollPeople }} />
        ) : (
          <>
            {made && !made.ok && <p className="text-caution">{made.reason}</p>}
            {made?.ok && (
              <p className="text-soft">
                {made.value.added} new, {made.value.renamed} named anew, {made.value.removed} go.
              </p>
            )}
            <Button
              kind="strong"
              disabled={!made?.ok || made.value.edit === null || put.isPending}
              onClick={() => put.mutate()}
            >
              {made?.ok && made.value.edit === null
                ? 'They are in the plan'
                : `Put ${grouped(chosen.length)} into “${plan?.name ?? ''}”`}
            </Button>
            {put.error && <Trouble>{put.error.message}</Trouble>}
          </>
        )}
      </div>
    </section>
  );
}
