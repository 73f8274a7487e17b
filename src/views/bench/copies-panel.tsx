'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, sentenceOf } from '@/api/call';
import { radioApi } from '@/api/radios';
import { Button, Moment, TickField, Trouble } from '@/ui';
import { ComparePanel } from './compare-panel';
import type { PlanName } from './plan-name';
import type { BenchInHand } from './use-bench';
import { NOTE_LIMIT, type Copy, type Radio } from '@/core/bench';

const REASON: Record<Copy['reason'], string> = {
  'first read': 'As it came',
  read: 'Read',
  'before write': 'Before a write',
  'after write': 'After a write',
  'before restore': 'Before a restore',
  'after restore': 'After a restore',
};

/** What a copy is, with the plan that was written: `After a write of “Norrast hills”, revision 12`. */
const copyText = ({ reason, plan }: Copy) =>
  plan === null ? REASON[reason] : `${REASON[reason]} of “${plan.name}”, revision ${plan.revision}`;

/** What somebody says of a copy, to be found by; kept when the field is left. */
function Note({ copy, onTrouble }: { copy: Copy; onTrouble: (words: string) => void }) {
  const client = useQueryClient();
  const [typed, setTyped] = useState<string | null>(null);
  const keep = async () => {
    if (typed === null || typed.trim() === copy.note) return setTyped(null);
    try {
      await call(radioApi.copyNote, { params: { id: copy.id }, body: { note: typed.trim() } });
      await client.invalidateQueries({ queryKey: ['bench'] });
    } catch (error) {
      onTrouble(sentenceOf(error));
    }
    setTyped(null);
  };
  return (
    <input
      aria-label={`Note on the copy ${copy.sha256.slice(0, 8)}`}
      placeholder="note"
      maxLength={NOTE_LIMIT}
      value={typed ?? copy.note}
      className="-ml-1.5 block w-full rounded border border-transparent bg-transparent px-1.5 text-[12.5px] placeholder:text-soft hover:border-line focus:border-line-strong"
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => void keep()}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(null);
      }}
    />
  );
}

/** More copies than this can be searched. */
const SEARCHED_FROM = 4;

/** True for a copy that has all the words in what is said of it. */
const hasWords = (copy: Copy, words: string) => {
  const said =
    `${copyText(copy)} ${copy.note} ${copy.takenAt.slice(0, 10)} ${copy.sha256.slice(0, 8)}`.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word));
};

/** The sealed copies of a radio: to fall back on, to take away as a file, to make a plan of; and those of others of its model. */
export function CopiesPanel({
  radio,
  hand,
  plans,
  busy,
}: {
  radio: Radio;
  hand: BenchInHand;
  plans: PlanName[];
  busy: boolean;
}) {
  const router = useRouter();
  const [asking, setAsking] = useState<string | null>(null);
  const [trouble, setTrouble] = useState('');
  const [words, setWords] = useState('');
  const [others, setOthers] = useState(false);
  const known = hand.bench?.radios ?? [];
  const siblings = known.filter(
    ({ id, modelId, copies }) => id !== radio.id && modelId === radio.modelId && copies.length > 0,
  );
  const all = others ? [...radio.copies, ...siblings.flatMap(({ copies }) => copies)] : radio.copies;
  const shown = all.filter((copy) => hasWords(copy, words));
  const [comparing, setComparing] = useState<string | null>(null);
  const compared = all.find(({ id }) => id === comparing);
  const ownerOf = (copy: Copy) => known.find(({ id }) => id === copy.radioId)?.called ?? 'another';

  const makePlan = async (copy: Copy) => {
    try {
      const made = await call(radioApi.copyPlan, { params: { id: copy.id } });
      router.push(`/plans/${made.plan.id}`);
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
  };

  return (
    <section aria-label="Sealed copies" className="shrink-0 rounded-md border border-line bg-sheet">
      <h3 className="flex flex-wrap items-baseline gap-x-2 gap-y-1 border-b border-line px-3 py-1.5 text-[13px]">
        <b className="font-semibold">Sealed copies</b>
        <span className="min-w-48 flex-1 text-soft">never changed, never removed</span>
        {(all.length >= SEARCHED_FROM || words !== '') && (
          <input
            aria-label="Find among the copies"
            placeholder="find by note, day, kind"
            value={words}
            className="w-44 rounded border border-line bg-transparent px-1.5 placeholder:text-soft"
            onChange={(event) => setWords(event.target.value)}
          />
        )}
      </h3>
      {radio.copies.length === 0 && (
        <p className="px-3 py-2 text-[13px] text-soft">
          None yet. Read the radio: what it holds now is kept first of all.
        </p>
      )}
      <ul className="max-h-48 overflow-y-auto">
        {shown.map((copy) => (
          <li
            key={copy.id}
            className="flex flex-wrap items-center gap-x-2 border-b border-line px-3 py-1 text-[13px] last:border-0"
          >
            <span className="min-w-48 flex-1">
              <span className="flex flex-wrap items-baseline gap-x-2">
                <span className="font-medium">{copyText(copy)}</span>
                {copy.radioId !== radio.id && (
                  <span className="mono text-[12px] text-soft">{ownerOf(copy)}</span>
                )}
                <span
                  className="text-[12.5px] text-soft"
                  title={`${copy.bytes.toLocaleString()} bytes, SHA-256 ${copy.sha256}`}
                >
                  <Moment at={copy.takenAt} />
                </span>
              </span>
              <Note copy={copy} onTrouble={setTrouble} />
            </span>
            {asking === copy.id ? (
              <>
                <span>
                  {copy.radioId === radio.id
                    ? `Write it back to ${radio.called}?`
                    : `Write it to ${radio.called}? What is its own stays: serial, calibration, texts.`}
                </span>
                <Button
                  kind="strong"
                  size="small"
                  autoFocus
                  onClick={() => {
                    setAsking(null);
                    hand.start.mutate({
                      ...{ kind: 'restore', radioId: radio.id, copyId: copy.id },
                      ...(copy.radioId !== radio.id && { ofAnother: true }),
                    });
                  }}
                >
                  Restore it
                </Button>
                <Button size="small" onClick={() => setAsking(null)}>
                  Not now
                </Button>
              </>
            ) : (
              <>
                <Button
                  kind="quiet"
                  size="small"
                  aria-pressed={comparing === copy.id}
                  onClick={() => setComparing(comparing === copy.id ? null : copy.id)}
                >
                  Compare
                </Button>
                <Button kind="quiet" size="small" onClick={() => void makePlan(copy)}>
                  Make a plan of it
                </Button>
                <a
                  className="rounded-md px-2 py-1 font-medium hover:bg-sunk"
                  href={`/api/copies/${copy.id}/image`}
                  download
                >
                  Save
                </a>
                <Button
                  kind="quiet"
                  size="small"
                  disabled={radio.port === null || busy}
                  onClick={() => setAsking(copy.id)}
                >
                  Restore
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
      {shown.length === 0 && all.length > 0 && (
        <p className="px-3 py-2 text-[13px] text-soft">No copy has “{words}” in what is said of it.</p>
      )}
      {siblings.length > 0 && (
        <p className="border-t border-line px-3 py-1">
          <TickField checked={others} onChange={setOthers} className="text-[13px]">
            Those of {siblings.map(({ called }) => called).join(', ')} too: all but what is a unit’s own can
            be restored here
          </TickField>
        </p>
      )}
      {compared && (
        <ComparePanel
          key={compared.id}
          copy={compared}
          others={[...radio.copies, ...siblings.flatMap(({ copies }) => copies)]
            .filter(({ id }) => id !== compared.id)
            .map((copy) => [
              copy.id,
              `${copy.radioId === radio.id ? '' : `${ownerOf(copy)}: `}${copyText(copy)}, ${new Date(copy.takenAt).toLocaleString('en', { dateStyle: 'medium', timeStyle: 'medium' })}`,
            ])}
          plans={plans}
          onClose={() => setComparing(null)}
        />
      )}
      {trouble && <Trouble className="m-2">{trouble}</Trouble>}
    </section>
  );
}
