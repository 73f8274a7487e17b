'use client';

import clsx from 'clsx';
import { Radio, Redo2, Undo2 } from 'lucide-react';
import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { useState } from 'react';
import type { LiveTold } from '@/core/bench';
import { PLAN_NAME_LIMIT, slotText } from '@/core/plan';
import { GRADE_NAMES, NOT_STATED } from '@/core/radio';
import { cutText } from '@/core/text';
import { Button, SeverityMark, lazily } from '@/ui';
import { useDesk } from './desk';
import type { PlanStore } from './plan-store';

function KeptState() {
  const { hand } = useDesk();
  const text = hand.offline
    ? `Not kept yet: Veridon does not answer. ${hand.waiting} waiting`
    : hand.waiting > 0
      ? 'Keeping…'
      : `Kept, revision ${hand.revision}`;
  return (
    <span
      role="status"
      className={hand.offline ? 'whitespace-nowrap text-stop' : 'whitespace-nowrap text-soft'}
    >
      {text}
    </span>
  );
}

/** The plan's name, which is changed where it stands. */
function Name() {
  const { hand } = useDesk();
  const [text, setText] = useState<string | null>(null);
  const { name } = hand.plan;
  const end = (keep: boolean) => {
    const next = text?.trim();
    if (keep && next && next !== name)
      hand.store.apply({ name: 'describe', set: { name: cutText(next, PLAN_NAME_LIMIT) } });
    setText(null);
  };
  return (
    <h1 className="min-w-0 text-[20px] font-semibold leading-[1.15] tracking-[-0.01em]">
      {text === null ? (
        <button
          type="button"
          className="block max-w-full truncate"
          title="Rename this plan"
          onClick={() => setText(name)}
        >
          {name}
        </button>
      ) : (
        <input
          autoFocus
          aria-label="Name of the plan"
          maxLength={60}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => end(true)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') end(true);
            if (event.key === 'Escape') end(false);
          }}
          className="w-80 border-b-2 border-ink bg-transparent outline-none"
        />
      )}
    </h1>
  );
}

/** The form comes when it is first asked for: the page is lighter without it. */
const OwnerForm = lazily(() => import('./owner-form').then((module) => module.OwnerForm));

/** Whose plan it is: by this the licence guard judges. */
function Owner() {
  const { hand } = useDesk();
  const { owner } = hand.plan;
  const [open, setOpen] = useState(false);
  const chip = (
    <button
      type="button"
      aria-haspopup="dialog"
      className={clsx(
        'whitespace-nowrap rounded-full border px-2.5 py-0.5 text-[13px] hover:bg-sheet',
        owner.grade === NOT_STATED ? 'border-caution-mark' : 'border-line-strong',
      )}
      onClick={() => setOpen(true)}
    >
      <b className="font-semibold">{owner.callSign || 'No call sign'}</b> ·{' '}
      {owner.grade === NOT_STATED ? 'grade not stated' : `grade ${GRADE_NAMES[owner.grade]}`}
      {owner.strict && ', strict'}
    </button>
  );
  return open ? <OwnerForm chip={chip} onClose={() => setOpen(false)} /> : chip;
}

const PAGES = [
  ['', 'Channels'],
  ['/organise', 'Organise'],
  ['/radios', 'Radios'],
] as const;

/** Who goes to another page waits no longer than this for what was just done to be kept, ms. */
const LONGEST_WAIT_MS = 3000;

/** Goes on when all that was done is on disk, or where that cannot be waited for. */
function whenKept(store: PlanStore, then: () => void, since = Date.now()): void {
  const { waiting, offline } = store.get();
  if (waiting === 0 || offline || Date.now() - since > LONGEST_WAIT_MS) then();
  else setTimeout(() => whenKept(store, then, since), 20);
}

/** A radio that follows the plan, with where its knob stands. */
function Follower({ called, state, slot, apart }: LiveTold) {
  const { hand } = useDesk();
  const says =
    apart > 0
      ? `${apart} to decide`
      : state === 'live'
        ? slot === null
          ? 'live'
          : `at ${slotText(slot)}`
        : state === 'away'
          ? 'away'
          : 'begins';
  return (
    <span role="status">
      <Link
        prefetch={false}
        href={`/bench?plan=${hand.plan.id}`}
        title="It follows this plan: what is typed here is in the radio at once"
        className={clsx(
          'flex items-center gap-1.5 whitespace-nowrap rounded-full border px-2.5 py-0.5 text-[13px] hover:bg-sheet',
          apart > 0 || state === 'away' ? 'border-caution-mark' : 'border-receive',
        )}
      >
        <Radio
          size={13}
          aria-hidden
          className={state === 'live' ? 'shrink-0 text-receive' : 'shrink-0 text-soft'}
        />
        <span className="mono">{called}</span>
        <span className="sr-only"> follows this plan: </span>
        <span className="whitespace-nowrap text-soft">{says}</span>
      </Link>
    </span>
  );
}

/** What of the plan is worked on. */
function Pages() {
  const { hand } = useDesk();
  const path = usePathname();
  const router = useRouter();
  const base = `/plans/${hand.plan.id}`;
  return (
    <nav aria-label="Of this plan" className="flex rounded-md border border-line-strong p-px text-[13px]">
      {PAGES.map(([ending, label]) => (
        <Link
          prefetch={false}
          key={label}
          href={base + ending}
          onClick={(event) => {
            // The other page asks for the plan anew: what was just done must be kept by then.
            if (hand.waiting === 0 || event.ctrlKey || event.metaKey || event.shiftKey) return;
            event.preventDefault();
            whenKept(hand.store, () => router.push(base + ending));
          }}
          aria-current={path === base + ending ? 'page' : undefined}
          className="rounded-[5px] px-2.5 py-1 text-soft hover:text-ink aria-[current=page]:bg-sheet aria-[current=page]:font-semibold aria-[current=page]:text-ink"
        >
          {label}
        </Link>
      ))}
    </nav>
  );
}

/** Name, radio, licence; undo and redo; what Check counts; on to Find and to the Bench. */
export function PlanHeader({ onCheck }: { onCheck: () => void }) {
  const { hand } = useDesk();
  const { plan, model, store } = hand;
  const { counts: found } = hand.shown.views;
  return (
    <header className="flex shrink-0 items-center gap-3 px-4 pb-2 pt-3 max-[1100px]:gap-2 max-lg:flex-wrap">
      <div className="min-w-24 leading-tight">
        <Name />
        <p className="flex gap-2 whitespace-nowrap text-[12.5px] text-soft">
          <span className="max-[1100px]:hidden">
            for {model.maker} {model.name}
            {plan.unit?.called.includes(model.name) === false && (
              <span className="mono"> {plan.unit.called}</span>
            )}
          </span>
          <KeptState />
        </p>
      </div>
      <Pages />
      <Owner />
      {hand.following.map((one) => (
        <Follower key={one.radioId} {...one} />
      ))}
      <span className="flex-1" />
      <Button
        disabled={hand.undo === null && hand.waiting === 0}
        title={hand.undo ? `Undo: ${hand.undo}` : 'Nothing to undo'}
        onClick={() => store.step('undo')}
      >
        <Undo2 size={16} aria-hidden className="hidden max-[1100px]:block" />
        <span className="max-[1100px]:sr-only">Undo</span>
      </Button>
      <Button
        disabled={hand.redo === null}
        title={hand.redo ? `Redo: ${hand.redo}` : 'Nothing to redo'}
        onClick={() => store.step('redo')}
      >
        <Redo2 size={16} aria-hidden className="hidden max-[1100px]:block" />
        <span className="max-[1100px]:sr-only">Redo</span>
      </Button>
      <Button onClick={onCheck}>
        Check
        {found.length === 0 && hand.shown.views.plan !== null && (
          <span className="sr-only">, no findings</span>
        )}
        {found.map(({ severity, n, text }) => (
          <span key={severity} className="inline-flex items-center gap-1 tabular-nums">
            <SeverityMark severity={severity} size={11} label={false} />
            <span aria-hidden>{n}</span>
            <span className="sr-only">, {text}</span>
          </span>
        ))}
      </Button>
      <Link
        prefetch={false}
        href={`/bench?plan=${plan.id}`}
        className="inline-flex h-8 items-center whitespace-nowrap rounded-md border border-action bg-action px-3 text-[13px] font-medium text-action-ink hover:opacity-90"
      >
        Write to a radio
      </Link>
    </header>
  );
}
