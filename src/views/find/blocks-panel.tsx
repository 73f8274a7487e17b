'use client';

import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import {
  channelOf,
  channelsOfSet,
  fillBlocks,
  firstOfKind,
  heldOf,
  runsOf,
  type Block,
  type Candidate,
  type StarterSet,
  type StationKind,
} from '@/core/directory';
import { modelOfPlan, sidesOf, slotsOf } from '@/core/models';
import { makeId, type NewChannel, type Plan } from '@/core/plan';
import type { Point } from '@/core/radio';
import { call, sentenceOf } from '@/api/call';
import { directoryApi } from '@/api/directories';
import { planApi } from '@/api/plans';
import { Button, Choice, Scroll, Tick, Trouble } from '@/ui';
import { RoomOffer, useRoom, type Room } from './room-offer';

interface Props {
  plan: Plan;
  revision: number;
  /** What the search shows, in its order. */
  shown: readonly Candidate[];
  /** True where nothing was searched yet: then there is no nearest. */
  open: boolean;
  /** Around which place was searched; null along a route. */
  searched: Point | null;
  onFilled: (label: string) => void;
  onClose: () => void;
}

/** A block that can be filled in: a starter set, or stations that were found. */
type Offer = { key: string; name: string } & (
  | { of: 'set'; set: StarterSet }
  | { of: StationKind; first: number }
);

/** What a block is set to. */
interface Wish {
  on: boolean;
  /** The slot to begin with, as typed; empty for behind those before. */
  from: string;
  /** How many stations, as typed. */
  n: string;
}

/** How a new radio is filled, until somebody has it otherwise: slots count from the first that it has. */
const USUAL: Record<string, { from: number | null; n?: number }> = {
  calling: { from: 0 },
  weather: { from: 10 },
  repeaters: { from: 20, n: 30 },
  services: { from: null, n: 20 },
  'licence-free': { from: null },
};

const newId = () => makeId('ch', crypto.getRandomValues(new Uint8Array(12)));
const numberIn = (text: string) => (/^\d{1,4}$/.test(text.trim()) ? Number(text) : null);

/** The blocks that there are, in the order in which they are filled: what is short and certain first, what fills up last. */
function offersOf(sets: readonly StarterSet[]): Offer[] {
  const ofKinds = (...kinds: string[]) =>
    kinds.flatMap((of) =>
      sets
        .filter(({ kind }) => kind === of)
        .map((set): Offer => ({ key: set.id, name: set.name, of: 'set', set })),
    );
  return [
    ...ofKinds('calling', 'weather'),
    { key: 'repeaters', name: 'Repeaters', of: 'repeaters', first: 30 },
    { key: 'services', name: 'Services', of: 'services', first: 20 },
    ...ofKinds('own', 'simplex', 'marine', 'air', 'licence-free'),
  ];
}

/** The channels of a block that the plan's radio can hold. */
function channelsOfOffer(offer: Offer, n: string, shown: readonly Candidate[], plan: Plan): NewChannel[] {
  const model = modelOfPlan(plan)!;
  if (offer.of === 'set')
    return channelsOfSet({ ...offer.set, channels: heldOf(offer.set, model).held }, newId);
  return firstOfKind(shown, offer.of, numberIn(n) ?? 0).flatMap(({ entry, source }) => {
    const made = channelOf(entry, source, '{name}', plan.owner.region, model.powers[0]!.milliwatts);
    return made.ok ? [{ ...made.value, id: newId() }] : [];
  });
}

/** Fills a radio in blocks: calling from here, weather from there, what was found, and so on until it is full; as one edit. */
export function BlocksPanel({ plan, revision, shown, open, searched, onFilled, onClose }: Props) {
  const model = modelOfPlan(plan)!;
  const { region } = plan.owner;
  const sets = useQuery({
    queryKey: ['starter-sets', region],
    queryFn: () => call(directoryApi.sets, { query: { region } }),
  });
  const [wishes, setWishes] = useState<Readonly<Record<string, Wish>>>({});
  const [list, setList] = useState(0);
  const [room, setRoom] = useState<Room>('none');
  const roomOf = useRoom(plan, list, shown, searched);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const range = slotsOf(model, list) ?? model.slots;
  const offers = useMemo(() => offersOf(sets.data?.sets ?? []), [sets.data]);
  const usual = (key: string): Wish => {
    const { from = null, n = 20 } = USUAL[key] ?? {};
    return {
      on: key in USUAL,
      from: from === null ? '' : String(range.first + from),
      n: String(n),
    };
  };
  const wishOf = (key: string): Wish => wishes[key] ?? usual(key);
  const wish = (key: string, part: Partial<Wish>) =>
    setWishes({ ...wishes, [key]: { ...wishOf(key), ...part } });

  const found = new Map(
    offers.map((offer) => [offer.key, channelsOfOffer(offer, wishOf(offer.key).n, open ? [] : shown, plan)]),
  );
  const blocks = offers
    .filter(({ key }) => wishOf(key).on)
    .map(({ key, name }): Block & { key: string } => ({
      key,
      name,
      channels: found.get(key) ?? [],
      from: numberIn(wishOf(key).from),
    }));
  const lists = [{ list, range }];
  const short = fillBlocks(plan, blocks, lists).blocks.reduce((n, block) => n + block.over.length, 0);
  const going = short > 0 ? roomOf(room, short) : [];
  const filling = fillBlocks(plan, blocks, lists, new Set(going.map(({ id }) => id)));
  const filledOf = (key: string) => filling.blocks[blocks.findIndex((block) => block.key === key)];
  const over = filling.blocks.flatMap((block) => block.over);
  const { placing } = filling;
  const sides = sidesOf(model);

  const drop = async (id: string) => {
    try {
      await call(directoryApi.dropSet, { params: { id } });
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
    await sets.refetch();
  };
  const fill = async () => {
    if (!placing) return;
    setBusy(true);
    setTrouble('');
    try {
      const { label } = await call(planApi.edit, {
        params: { id: plan.id },
        body: { base: revision, edit: placing.edit },
      });
      onFilled(label);
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
    setBusy(false);
  };

  return (
    <section
      aria-label="Fill in blocks"
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet text-[13px]"
    >
      <header className="flex items-baseline gap-2 border-b border-line px-3 py-2">
        <h2 className="font-semibold">Fill in blocks</h2>
        <span className="text-soft">
          {range.count - plan.channels.filter((channel) => channel.list === list).length} slots free
        </span>
      </header>
      {sides.length > 1 && (
        <Choice
          label="On the side"
          value={String(list)}
          options={sides.map((side) => [String(side), model.lists[side]!.name] as const)}
          onChange={(side) => setList(Number(side))}
          className="border-b border-line px-3 py-2"
        />
      )}
      <Scroll label="Blocks" className="flex-1">
        <ul aria-label="Blocks">
          {offers.map((offer) => (
            <BlockRow
              key={offer.key}
              offer={offer}
              wish={wishOf(offer.key)}
              onWish={(part) => wish(offer.key, part)}
              held={found.get(offer.key)?.length ?? 0}
              reasons={offer.of === 'set' ? heldOf(offer.set, model).reasons : []}
              onDrop={offer.of === 'set' && offer.set.kind === 'own' ? () => drop(offer.key) : null}
              said={saidOf(filledOf(offer.key), offer.of !== 'set' && open)}
            />
          ))}
        </ul>
        {over.length > 0 && (
          <p className="border-t border-line px-3 py-2 text-caution" role="status">
            {over.length} find no slot and wait left over:{' '}
            {over
              .slice(0, 10)
              .map(({ name }) => name)
              .join(', ')}
            {over.length > 10 && ' …'}.
          </p>
        )}
        {short > 0 && <RoomOffer room={room} onRoom={setRoom} going={going} n={short} />}
        {trouble && <Trouble className="m-3">{trouble}</Trouble>}
      </Scroll>
      <div className="flex gap-2 border-t border-line p-3">
        <Button kind="strong" className="flex-1" disabled={busy || !placing} onClick={fill}>
          {placing
            ? `Fill in ${placing.placed} ${placing.placed === 1 ? 'channel' : 'channels'}`
            : 'Nothing to fill in'}
        </Button>
        <Button onClick={onClose}>Close</Button>
      </div>
    </section>
  );
}

/** What becomes of a block, in few words. */
function saidOf(
  filled: ReturnType<typeof fillBlocks>['blocks'][number] | undefined,
  unsearched: boolean,
): string {
  if (!filled) return '';
  if (unsearched) return 'Search around a place first.';
  const { slots, known, over } = filled;
  return [
    slots.length > 0 ? `slots ${runsOf(slots)}` : '',
    known > 0 ? `${known} there already` : '',
    over.length > 0 ? `${over.length} without a slot` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

function BlockRow({
  offer,
  wish,
  onWish,
  held,
  reasons,
  onDrop,
  said,
}: {
  offer: Offer;
  wish: Wish;
  onWish: (part: Partial<Wish>) => void;
  held: number;
  reasons: readonly [string, number][];
  /** Takes a set of one's own away; null for what ships. */
  onDrop: (() => void) | null;
  said: string;
}) {
  const { name } = offer;
  const all = offer.of === 'set' ? offer.set.channels.length : held;
  const [worst] = reasons;
  const figure =
    'h-6 w-11 rounded border border-line-strong bg-sheet px-1 text-center disabled:opacity-50 mono text-[12.5px]';
  return (
    <li className="grid grid-cols-[20px_1fr_auto_auto] items-center gap-x-2 border-b border-line px-3 py-1.5">
      <Tick aria-label={name} checked={wish.on} onCheckedChange={(on) => onWish({ on: on === true })} />
      <span
        className="min-w-0 truncate"
        title={offer.of === 'set' ? `${offer.set.source.title} (${offer.set.source.edition})` : undefined}
      >
        <span className="font-medium">{name}</span>{' '}
        <span
          className="text-soft"
          title={worst && reasons.map(([reason, n]) => `${n}: ${reason}`).join(', ')}
        >
          {offer.of === 'set' ? (held < all ? `${held} of ${all}` : held) : held}
        </span>
      </span>
      {offer.of === 'set' ? (
        onDrop ? (
          <Button kind="quiet" size="small" aria-label={`Take the set ${name} away`} onClick={onDrop}>
            Take away
          </Button>
        ) : (
          <span />
        )
      ) : (
        <label className="text-soft">
          nearest{' '}
          <input
            aria-label={`How many of ${name}`}
            inputMode="numeric"
            value={wish.n}
            disabled={!wish.on}
            onChange={(event) => onWish({ n: event.target.value })}
            className={figure}
          />
        </label>
      )}
      <label className="text-soft">
        from{' '}
        <input
          aria-label={`From which slot ${name}`}
          inputMode="numeric"
          placeholder="next"
          value={wish.from}
          disabled={!wish.on}
          onChange={(event) => onWish({ from: event.target.value })}
          className={figure}
        />
      </label>
      {wish.on && said !== '' && (
        <span className="col-start-2 col-end-[-1] text-[12px] text-soft">{said}</span>
      )}
    </li>
  );
}
