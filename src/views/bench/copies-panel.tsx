'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, sentenceOf } from '@/api/call';
import { radioApi } from '@/api/radios';
import { Button, Moment, Trouble } from '@/ui';
import type { BenchInHand } from './use-bench';
import { NOTE_LIMIT, type Copy, type Radio } from '@/core/bench';

const REASON: Record<Copy['reason'], string> = {
  'first read': 'As it came',
  read: 'Read',
  'before write': 'Before a write',
  'after write': 'After a write',
};

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
      className="min-w-0 flex-1 rounded border border-transparent bg-transparent px-1.5 py-0.5 placeholder:text-soft hover:border-line focus:border-line-strong"
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => void keep()}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(null);
      }}
    />
  );
}

/** The sealed copies of a radio: to fall back on, to take away as a file, to make a plan of. */
export function CopiesPanel({ radio, hand, busy }: { radio: Radio; hand: BenchInHand; busy: boolean }) {
  const router = useRouter();
  const [asking, setAsking] = useState<string | null>(null);
  const [trouble, setTrouble] = useState('');

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
      <h3 className="border-b border-line px-3 py-1.5 text-[13px]">
        <b className="font-semibold">Sealed copies</b>{' '}
        <span className="text-soft">never changed, never removed</span>
      </h3>
      {radio.copies.length === 0 && (
        <p className="px-3 py-2 text-[13px] text-soft">
          None yet. Read the radio: what it holds now is kept first of all.
        </p>
      )}
      <ul className="max-h-40 overflow-y-auto">
        {radio.copies.map((copy) => (
          <li
            key={copy.id}
            className="flex items-center gap-3 border-b border-line px-3 py-1 text-[13px] last:border-0"
          >
            <span className="w-24 shrink-0 font-medium">{REASON[copy.reason]}</span>
            <span className="shrink-0 text-soft">
              <span title={`${copy.bytes.toLocaleString()} bytes, SHA-256 ${copy.sha256}`}>
                <Moment at={copy.takenAt} />
              </span>
            </span>
            <Note copy={copy} onTrouble={setTrouble} />
            {asking === copy.id ? (
              <>
                <span>Write it back to {radio.called}?</span>
                <Button
                  kind="strong"
                  size="small"
                  autoFocus
                  onClick={() => {
                    setAsking(null);
                    hand.start.mutate({ kind: 'restore', radioId: radio.id, copyId: copy.id });
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
      {trouble && <Trouble className="m-2">{trouble}</Trouble>}
    </section>
  );
}
