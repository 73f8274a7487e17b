'use client';

import { Button, LongList, type ListRow } from '@/ui';
import { useDesk } from './desk';
import { item } from './side-list';

/** Rows that were pasted and of which no channel came, each with its line and why. */
export function RefusedPanel() {
  const { actions } = useDesk();
  const { refused } = actions;
  const rows = refused.map(({ line, text, reason }): ListRow => ({
    key: String(line),
    className: item,
    show: () => (
      <>
        <span className="text-soft">Line {line}</span>{' '}
        <span className="mono break-words text-[12.5px]">{text || 'empty'}</span>
        <p className="text-stop">{reason}</p>
      </>
    ),
  }));
  return (
    <section
      aria-label="Not taken"
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet"
    >
      <p className="shrink-0 border-b border-line px-3 py-2 text-[13px]" role="status">
        <b className="font-semibold">
          {refused.length === 1 ? 'One row' : `${refused.length} rows`} not taken.
        </b>{' '}
        The others are in. Put right what stands here, and paste it once more.
      </p>
      <LongList label="Rows not taken" rows={rows} plain />
      <p className="flex shrink-0 gap-2 border-t border-line p-2">
        <Button
          size="small"
          className="flex-1"
          onClick={() => void navigator.clipboard.writeText(refused.map(({ text }) => text).join('\n'))}
        >
          Copy these rows
        </Button>
        <Button size="small" kind="quiet" onClick={actions.dropRefused}>
          Close
        </Button>
      </p>
    </section>
  );
}
