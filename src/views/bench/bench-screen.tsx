'use client';

import { useState } from 'react';
import { modelById } from '@/core/models';
import { USUAL_REGION } from '@/core/radio';
import { AtItsMoment, GetReady, JobPanel, RadioFace } from '@/views/parts';
import { Button, Trouble, useCommands } from '@/ui';
import { ByHandPanel } from './by-hand-panel';
import { CopiesPanel } from './copies-panel';
import { HeldPanel } from './held-panel';
import { LivePanel } from './live-panel';
import { SeveralPanel } from './several-panel';
import { SilentPort } from './silent-port';
import { useBench, type BenchInHand } from './use-bench';
import { UnitValuesPanel } from './unit-values';
import { WritePanel } from './write-panel';
import type { PlanId } from '@/core/plan';
import type { Bench, Radio } from '@/core/bench';
import { OpenCard } from './card-zip';
import { HalfWritten } from './half-written';
import { hasCard } from './has-card';
import { Otherwise } from './otherwise';
import type { PlanName } from './plan-name';
import { RadioList } from './radio-list';

interface Props {
  plans: PlanName[];
  planId: PlanId | null;
  /** Where the simulated bench has its own page. */
  benchUrl: string;
}

type Port = Bench['ports'][number];
/** True where something is plugged in and nobody is known to be there. */
const isSilent = ({ radioId, busy }: Port) => radioId === null && !busy;

function OneRadio({
  radio,
  hand,
  plans,
  planId,
}: {
  radio: Radio;
  hand: BenchInHand;
  plans: PlanName[];
  planId: PlanId | null;
}) {
  const job = hand.jobOf(radio.id);
  const live = hand.liveOf(radio.id);
  const busy = job?.state === 'running' || (live !== undefined && live.state !== 'ended');
  const broke = job !== undefined && !busy && job.result.radio === 'half written';
  const [chosenPlan, setChosenPlan] = useState(
    planId ??
      plans.find(({ unit }) => unit === radio.id)?.id ??
      plans.find(({ modelId }) => modelId === radio.modelId)?.id ??
      plans[0]?.id ??
      null,
  );
  const plan = plans.find(({ id }) => id === chosenPlan);
  return (
    <div className="flex min-h-0 min-w-0 flex-1 gap-3 max-lg:flex-none max-lg:flex-col">
      <div className="flex min-h-0 min-w-0 flex-1 flex-col gap-2.5 overflow-y-auto max-lg:overflow-y-visible">
        <div className="flex shrink-0 items-baseline gap-3">
          <h2 className="text-[17px] font-semibold">{radio.model}</h2>
          <span className="flex-1 text-[13px] text-soft">
            {radio.serial ? (
              <>
                Serial <span className="mono text-ink">{radio.serial}</span>, firmware{' '}
              </>
            ) : (
              'Firmware '
            )}
            <span className="mono">{radio.firmware}</span>, region {radio.region}
            {radio.battery !== null && <>, battery {radio.battery} %</>}
            {radio.port
              ? `, ${hasCard(radio) ? 'its card in' : 'on'} ${radio.port}`
              : hasCard(radio)
                ? ', its card is not here'
                : ', not plugged in'}
          </span>
          <Button
            kind={radio.copies.length === 0 && radio.port !== null ? 'strong' : 'plain'}
            disabled={radio.port === null || busy}
            onClick={() => hand.start.mutate({ kind: 'read', radioId: radio.id })}
          >
            Read
          </Button>
        </div>
        <Otherwise radio={radio} />
        {radio.state === 'half written' && !busy && (
          <HalfWritten radio={radio} hand={hand} how={broke ? job.message : null} />
        )}
        {[hand.start, hand.follow, hand.unfollow, hand.decide].map(
          ({ error }, at) =>
            error && (
              <Trouble key={at} className="shrink-0">
                {error.message}
              </Trouble>
            ),
        )}
        {live && <LivePanel live={live} hand={hand} />}
        {hand.follow.isPending && !live && <p role="status">Putting the plan into the radio…</p>}
        {job && !live && !(broke && radio.state === 'half written') && (
          <JobPanel job={job} onStop={() => hand.stop(job.id)} onDismiss={() => hand.dismiss(job.id)} />
        )}
        {radio.port === null && !live && (
          <Ready modelId={radio.modelId} onPort={hand.bench?.ports.some(isSilent) ?? false} />
        )}
        {radio.port !== null && !busy && radio.copies.length === 0 && modelById(radio.modelId) && (
          <AtItsMoment model={modelById(radio.modelId)!} moment="read" />
        )}
        {radio.port !== null && !busy && <OnCard radio={radio} hand={hand} />}
        <UnitValuesPanel key={radio.id} radio={radio} />
        <CopiesPanel radio={radio} hand={hand} plans={plans} busy={busy} />
        {!busy && plan && radio.state === 'whole' && (
          <ByHandPanel radio={radio} planId={plan.id} planName={plan.name} />
        )}
        {!busy && (
          <WritePanel radio={radio} plans={plans} planId={chosenPlan} hand={hand} onChoose={setChosenPlan} />
        )}
      </div>
      {live?.state === 'live' || live?.state === 'away' ? (
        <aside aria-label="In the radio" className="flex w-[288px] shrink-0 flex-col max-lg:w-full">
          {live.channel && (
            <RadioFace
              channel={live.channel}
              model={modelById(radio.modelId)!}
              region={USUAL_REGION}
              settings={live.settings}
            />
          )}
          <p className="pt-2 text-[13px] text-soft">
            {live.channel === null
              ? live.state === 'away'
                ? 'Where its knob stands is seen when its line is back.'
                : 'Its knob stands at no memory.'
              : live.state === 'away'
                ? 'Where it stood when its line went.'
                : 'Where its knob stands, as it is turned.'}
          </p>
        </aside>
      ) : (
        radio.copies.length > 0 &&
        radio.state === 'whole' && (
          <aside aria-label="In the radio" className="flex w-[288px] shrink-0 flex-col max-lg:w-full">
            <HeldPanel key={radio.id} radio={radio} />
          </aside>
        )
      )}
    </div>
  );
}

/** What is still to be done with a card that Veridon wrote: it is in the radio when the radio has loaded it. */
function OnCard({ radio, hand }: { radio: Radio; hand: BenchInHand }) {
  const loaded = hand.bench?.ports.find(({ name }) => name === radio.port)?.loaded ?? null;
  if (loaded === null) return null;
  const steps = modelById(radio.modelId)?.getReady.filter(({ when }) => when === 'after') ?? [];
  return (
    <section
      aria-label="On the card"
      className="shrink-0 rounded-md border border-line bg-sheet px-3 py-2 text-[13px]"
    >
      {loaded ? (
        <>
          <b className="font-semibold">The radio has loaded this card.</b> It holds what was written.
        </>
      ) : (
        <>
          <b className="font-semibold">Written on the card, not yet in the radio.</b>{' '}
          {steps.map(({ what, shows }) => `${what}${shows ? ` It shows: ${shows}.` : ''}`).join(' ')}
        </>
      )}
    </section>
  );
}

/** How a radio that is away is made ready to be read and written. */
function Ready({ modelId, onPort }: { modelId: string; onPort: boolean }) {
  const model = modelById(modelId);
  return (
    model && (
      <section
        aria-label="Getting it ready"
        className="shrink-0 rounded-md border border-line bg-sheet px-3 py-2"
      >
        <h3 className="text-[13px] font-semibold">Getting it ready</h3>
        <GetReady model={model} seen={{ port: onPort, answers: false }} />
      </section>
    )
  );
}

/** What lies on the table with its cable or card out of the computer. */
function Lying({ lying }: Pick<Bench, 'lying'>) {
  const cabled = lying.filter((radio) => radio.cabled);
  if (cabled.length === 0) return null;
  return (
    <section aria-label="Not plugged in" className="pt-1 text-left text-[13px] text-soft">
      <p className="pb-0.5 font-medium">On the table, not connected</p>
      <ul>
        {cabled.map(({ label, serial }) => (
          <li key={serial} className="flex justify-between gap-2">
            <span className="truncate">{label}</span>
            <span className="mono shrink-0 text-[12px]">{serial}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The Bench: which radios are here, what they hold, reading and writing them. */
export function BenchScreen({ plans, planId, benchUrl }: Props) {
  const hand = useBench();
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [several, setSeveral] = useState(false);
  const radios = hand.bench?.radios ?? [];
  // A link from a plan opens the radio that the plan is made for, even if another one is plugged in.
  const wanted = plans.find(({ id }) => id === planId);
  const ofItsModel = radios.filter(({ modelId }) => modelId === wanted?.modelId);
  const chosen =
    radios.find((radio) => radio.id === chosenId) ??
    radios.find((radio) => wanted && radio.id === wanted.unit) ??
    ofItsModel.find(({ port }) => port !== null) ??
    ofItsModel[0] ??
    radios.find(({ id }) => hand.liveOf(id) !== undefined) ??
    radios.find((radio) => radio.port !== null) ??
    radios[0];
  useCommands(
    'bench',
    radios.flatMap((radio) => [
      {
        id: `see-${radio.id}`,
        label: `See ${radio.model} ${radio.serial ?? ''}`,
        group: 'Bench',
        run: () => setChosenId(radio.id),
      },
      ...(radio.port
        ? [
            {
              id: `read-${radio.id}`,
              label: `Read ${radio.model} ${radio.serial ?? ''}`,
              group: 'Bench',
              run: () => hand.start.mutate({ kind: 'read', radioId: radio.id }),
            },
          ]
        : []),
    ]),
  );
  const silent = hand.bench?.ports.filter(isSilent) ?? [];
  // Nobody asks for a card where no radio has one.
  const cards = radios.some(hasCard);
  const opened = (id: string) => {
    hand.look();
    setChosenId(id);
  };
  const link = (
    <a className="underline" href={benchUrl} target="_blank" rel="noreferrer">
      simulated bench
    </a>
  );
  return (
    <main className="flex h-full min-w-0 gap-4 px-4 pb-3 pt-3 max-lg:flex-col max-lg:overflow-y-auto">
      <div className="flex w-56 shrink-0 flex-col gap-3 overflow-y-auto *:shrink-0 max-lg:w-full max-lg:overflow-y-visible">
        <h1 className="text-[21px] font-semibold leading-8">Bench</h1>
        {hand.trouble && <Trouble>{hand.trouble}</Trouble>}
        {radios.length > 0 && (
          <RadioList
            radios={radios}
            chosen={chosen?.id ?? null}
            liveOf={hand.liveOf}
            onChoose={setChosenId}
          />
        )}
        {!several && plans.length > 0 && radios.filter(({ port }) => port !== null).length > 1 && (
          <Button onClick={() => setSeveral(true)}>Write to several…</Button>
        )}
        {silent.map((port) => (
          <SilentPort key={port.name} port={port} />
        ))}
        {cards && <OpenCard onOpened={opened} />}
        {hand.bench && radios.length > 0 && <Lying lying={hand.bench.lying} />}
        {(radios.length > 0 || hand.bench?.reachable === false) && (
          <p className="text-[13px] text-soft">
            {hand.bench?.reachable === false ? (
              <>The bench process does not answer at {benchUrl}. Start it with npm run bench.</>
            ) : (
              <>Plug radios in, pull them and press their keys on the {link}.</>
            )}
          </p>
        )}
      </div>
      {several ? (
        <div className="flex min-h-0 min-w-0 flex-1 flex-col gap-2.5">
          <h2 className="text-[17px] font-semibold">Several radios</h2>
          <SeveralPanel radios={radios} plans={plans} planId={planId} onClose={() => setSeveral(false)} />
        </div>
      ) : chosen ? (
        <OneRadio key={chosen.id} radio={chosen} hand={hand} plans={plans} planId={planId} />
      ) : (
        <section className="m-auto max-w-md text-center" aria-label="No radio yet">
          <h2 className="text-[17px] font-semibold">No radio has been here yet</h2>
          <p className="pt-2 text-soft">
            Plug one in on the {link} and it appears here. Read it first: what it holds now is sealed, so that
            you can always go back.
          </p>
          <p className="flex flex-col items-center gap-2 pt-3">
            <OpenCard onOpened={opened} />
          </p>
          {hand.bench && <Lying lying={hand.bench.lying} />}
        </section>
      )}
    </main>
  );
}
