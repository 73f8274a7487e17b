'use client';

import clsx from 'clsx';
import { useEffect, useMemo, useState } from 'react';
import { ask, sentenceOf } from '@/ui';
import { item } from './side-list';

interface LogRow {
  revision: number;
  kind: 'edit' | 'undo' | 'redo';
  label: string;
  at: string;
}

function GoBack({ revision, onGoBack }: { revision: number; onGoBack: (revision: number) => void }) {
  return (
    <button
      type="button"
      className="text-[12px] text-soft underline hover:text-ink"
      aria-label={`Go back to revision ${revision}`}
      onClick={() => onGoBack(revision)}
    >
      Go back to here
    </button>
  );
}

const KIND = { edit: '', undo: 'Undone: ', redo: 'Done again: ' };

/** What has been done, newest first, with the way back. */
export function HistoryList({
  id,
  revision,
  onGoBack,
}: {
  id: string;
  revision: number;
  onGoBack: (revision: number) => void;
}) {
  const [log, setLog] = useState<LogRow[] | null>(null);
  const [trouble, setTrouble] = useState('');
  useEffect(() => {
    let gone = false;
    ask<{ edits: LogRow[] }>(`/api/plans/${id}/edits?limit=200`).then(
      ({ edits }) => !gone && setLog(edits),
      (error: unknown) => !gone && setTrouble(sentenceOf(error)),
    );
    return () => {
      gone = true;
    };
  }, [id, revision]);
  const time = useMemo(
    () => new Intl.DateTimeFormat(undefined, { dateStyle: 'short', timeStyle: 'short' }),
    [],
  );
  if (trouble) return <p className="p-3 text-[13px] text-stop">{trouble}</p>;
  return (
    <ol aria-label="What has been done, newest first" reversed>
      {log?.map((row) => (
        <li key={row.revision} className={item}>
          <span className={clsx('block', row.kind === 'undo' && 'text-soft')}>
            {KIND[row.kind]}
            {row.label}
          </span>
          <span className="flex justify-between gap-3 text-[12px] text-soft">
            <time dateTime={row.at}>{time.format(new Date(row.at))}</time>
            {row.revision < revision && <GoBack revision={row.revision} onGoBack={onGoBack} />}
          </span>
        </li>
      ))}
      {log && (log.at(-1)?.revision ?? 2) === 2 && (
        <li className={clsx(item, 'flex justify-between gap-3')}>
          The plan as it was made
          {revision > 1 && <GoBack revision={1} onGoBack={onGoBack} />}
        </li>
      )}
    </ol>
  );
}
