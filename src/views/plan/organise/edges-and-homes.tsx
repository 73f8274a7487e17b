'use client';

import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { homeListOf } from '@/core/models';
import { bandName } from '@/core/organise';
import { formatFrequency, parseFrequency, type Range } from '@/core/radio';
import type { ScanEdge } from '@/core/plan';
import { Button, Choice, Field } from '@/ui';
import { newId, type Organising } from './use-organise';

/** For each side: pairs of edges between which it searches, drawn on its bands, and a home channel a band. */
export function EdgesAndHomes({ organising }: { organising: Organising }) {
  return (
    <div className="grid min-h-0 flex-1 auto-rows-min gap-3 overflow-y-auto lg:grid-cols-2">
      {organising.sides.map((side) => (
        <Side key={side} side={side} organising={organising} />
      ))}
    </div>
  );
}

function Side({ side, organising }: { side: number; organising: Organising }) {
  const { plan, model, sideName } = organising;
  const edges = plan.scanEdges.filter(({ list }) => list === side);
  return (
    <section
      aria-label={`${model.lists[side]!.name} side`}
      className="flex flex-col gap-4 rounded-md border border-line bg-sheet p-4"
    >
      <h2 className="text-[15px] font-semibold">{model.lists[side]!.name}</h2>
      <div className="flex flex-col gap-3">
        <h3 className="text-[13px] font-semibold text-soft">
          Scan edges{' '}
          <span className="font-normal tabular-nums">
            {edges.length} of {model.scanEdges!.count}
          </span>
        </h3>
        {model.bands.map((band) => (
          <EdgeRuler
            key={band.name}
            name={band.name}
            range={band.transmit ?? band.receive}
            edges={edges}
            channels={plan.channels.filter(({ list }) => list === side).map(({ rx }) => rx)}
          />
        ))}
        <ol className="flex flex-col gap-1">
          {edges.map((edge) => (
            <EdgeRow
              key={`${edge.id} ${edge.from} ${edge.to} ${edge.name}`}
              edge={edge}
              organising={organising}
            />
          ))}
        </ol>
        <NewEdge side={side} organising={organising} />
      </div>
      <div className="flex flex-col gap-2 border-t border-line pt-3">
        <h3 className="text-[13px] font-semibold text-soft">Home channels</h3>
        {model.bands.map((band, at) => {
          const homeList = homeListOf(model, side);
          const home = plan.channels.find(({ list, slot }) => list === homeList && slot === at + 1);
          const candidates = plan.channels.filter(
            (channel) => organising.sides.includes(channel.list) && bandName(channel, model) === band.name,
          );
          return (
            <div key={band.name} className="flex flex-wrap items-end gap-3">
              <Choice
                className="w-64"
                label={`${band.name} on the ${sideName(side)}`}
                value={home ? 'stays' : 'none'}
                options={[
                  ...(home
                    ? ([['stays', `${home.name || 'no name'}, ${formatFrequency(home.rx)}`]] as const)
                    : ([['none', 'None set']] as const)),
                  ...candidates.map(
                    (channel) =>
                      [
                        channel.id as string,
                        `${channel.name || 'no name'}, ${formatFrequency(channel.rx)}`,
                      ] as const,
                  ),
                ]}
                onChange={(id) => {
                  const channel = candidates.find((one) => one.id === id);
                  if (channel) organising.makeHome(channel, side);
                }}
              />
              {home && (
                <Button
                  kind="quiet"
                  onClick={() =>
                    organising.run(
                      { name: 'remove', ids: [home.id] },
                      `No home channel of ${band.name} on the ${sideName(side)}.`,
                    )
                  }
                >
                  Take it away
                </Button>
              )}
            </div>
          );
        })}
      </div>
    </section>
  );
}

const percent = (hz: number, { from, to }: Range) => `${(100 * (hz - from)) / (to - from)}%`;

/** A band to scale, with the channels of the side as ticks and the stretches that are searched as bars. */
function EdgeRuler({
  name,
  range,
  edges,
  channels,
}: {
  name: string;
  range: Range;
  edges: readonly ScanEdge[];
  channels: readonly number[];
}) {
  const inside = edges.filter(({ from, to }) => from < to && to > range.from && from < range.to);
  const clip = (hz: number) => Math.min(range.to, Math.max(range.from, hz));
  return (
    <figure aria-label={`${name}, ${inside.length} stretches searched`}>
      <figcaption className="flex justify-between text-[12px] text-soft">
        <span className="font-semibold text-ink">{name}</span>
        <span className="mono">
          {formatFrequency(range.from)} – {formatFrequency(range.to)}
        </span>
      </figcaption>
      <div className="relative h-9 rounded border border-line bg-paper">
        {inside.map(({ id, from, to, name: of }) => (
          <span
            key={id}
            title={of}
            className="absolute bottom-0 top-0 border-x-2 border-receive bg-wash"
            style={{
              left: percent(clip(from), range),
              width: `calc(${percent(clip(to), range)} - ${percent(clip(from), range)})`,
            }}
          />
        ))}
        {channels
          .filter((hz) => hz >= range.from && hz <= range.to)
          .map((hz, at) => (
            <span
              key={at}
              className="absolute bottom-0 h-4 w-[2px] bg-receive"
              style={{ left: percent(hz, range) }}
            />
          ))}
      </div>
    </figure>
  );
}

function EdgeRow({ edge, organising }: { edge: ScanEdge; organising: Organising }) {
  const { run, model } = organising;
  const [from, setFrom] = useState(formatFrequency(edge.from));
  const [to, setTo] = useState(formatFrequency(edge.to));
  const [name, setName] = useState(edge.name);
  const [problem, setProblem] = useState('');
  const bands = model.bands.map(({ receive }) => receive);
  const keep = () => {
    const [low, high] = [parseFrequency(from, bands), parseFrequency(to, bands)];
    if (!low.ok) return setProblem(low.reason);
    if (!high.ok) return setProblem(high.reason);
    if (low.value >= high.value) return setProblem('The lower edge is not below the upper one.');
    setProblem('');
    const set = {
      ...(low.value !== edge.from && { from: low.value }),
      ...(high.value !== edge.to && { to: high.value }),
      ...(name.trim() && name.trim() !== edge.name && { name: name.trim() }),
    };
    if (Object.keys(set).length > 0)
      run({ name: 'change', kind: 'scanEdge', changes: [{ id: edge.id, set }] }, 'Changed the scan edges.');
  };
  const field = 'h-7 rounded border border-line bg-sheet px-1.5 text-[13px] focus:border-line-strong';
  const onKeyDown = (event: React.KeyboardEvent) => event.key === 'Enter' && keep();
  return (
    <li className="flex flex-wrap items-center gap-2" onBlur={keep}>
      <input
        aria-label="Name of the edges"
        value={name}
        maxLength={32}
        onChange={(event) => setName(event.target.value)}
        onKeyDown={onKeyDown}
        className={`${field} w-40`}
      />
      <input
        aria-label={`Lower edge of ${edge.name}, MHz`}
        value={from}
        onChange={(event) => setFrom(event.target.value)}
        onKeyDown={onKeyDown}
        className={`${field} mono w-24 text-receive`}
      />
      <span aria-hidden>to</span>
      <input
        aria-label={`Upper edge of ${edge.name}, MHz`}
        value={to}
        onChange={(event) => setTo(event.target.value)}
        onKeyDown={onKeyDown}
        className={`${field} mono w-24 text-receive`}
      />
      <Button
        kind="quiet"
        size="icon"
        className="size-7!"
        aria-label={`Remove ${edge.name}`}
        onClick={() =>
          run(
            { name: 'remove', kind: 'scanEdge', ids: [edge.id] },
            `Removed “${edge.name}”. Ctrl Z brings it back.`,
          )
        }
      >
        <Trash2 size={13} className="text-soft" aria-hidden />
      </Button>
      {problem && (
        <span className="w-full text-[12.5px] text-stop" role="alert">
          {problem}
        </span>
      )}
    </li>
  );
}

function NewEdge({ side, organising }: { side: number; organising: Organising }) {
  const { model, run } = organising;
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [problem, setProblem] = useState('');
  const bands = model.bands.map(({ receive }) => receive);
  return (
    <form
      aria-label={`New scan edges, ${organising.sideName(side)}`}
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const [low, high] = [parseFrequency(from, bands), parseFrequency(to, bands)];
        if (!low.ok) return setProblem(low.reason);
        if (!high.ok) return setProblem(high.reason);
        if (low.value >= high.value) return setProblem('The lower edge is not below the upper one.');
        setProblem('');
        const band = bandName({ rx: low.value }, model);
        const record = {
          id: newId.scanEdge(),
          name: band ? `Search ${band}` : 'Search',
          list: side,
          from: low.value,
          to: high.value,
        };
        if (run({ name: 'put', kind: 'scanEdge', records: [record], before: null }, 'Added scan edges.')) {
          setFrom('');
          setTo('');
        }
      }}
    >
      <Field
        id={`edge-from-${side}`}
        className="w-32"
        label="From, MHz"
        value={from}
        onChange={(event) => setFrom(event.target.value)}
        problem={problem || undefined}
      />
      <Field className="w-32" label="To, MHz" value={to} onChange={(event) => setTo(event.target.value)} />
      <Button type="submit" disabled={!from.trim() || !to.trim()}>
        Add
      </Button>
    </form>
  );
}
