'use client';

import { useDeferredValue, useMemo, useState, type FormEvent } from 'react';
import { COLUMNS, slotText, type Column } from '@/core/plan';
import { previewReplacing, replacingChanges } from '@/core/table';
import { Button, Choice, Field, LongList, TickField, useEscape, type ListRow } from '@/ui';
import { HEADINGS } from './channel-row';
import { useDesk } from './desk';
import { item } from './side-list';

type Where = Exclude<Column, 'slot'> | 'all';
const TEXTS = COLUMNS.filter((column) => column !== 'slot');

/** Finds and replaces in one column or all of the rows that are shown, or of the chosen; each cell is shown with what becomes of it. */
export function ReplacePanel({ onClose }: { onClose: () => void }) {
  const { hand, table, actions } = useDesk();
  const many = table.chosenChannels.length > 1;
  const [find, setFind] = useState('');
  const [by, setBy] = useState('');
  const [where, setWhere] = useState<Where>('name');
  const [exactCase, setExactCase] = useState(false);
  const [wholeCell, setWholeCell] = useState(false);
  const [among, setAmong] = useState<'shown' | 'chosen'>(many ? 'chosen' : 'shown');
  const channels = among === 'chosen' ? table.chosenChannels : table.rows;
  const wish = useDeferredValue(
    useMemo(
      () => ({ find, by, columns: where === 'all' ? TEXTS : [where], exactCase, wholeCell }),
      [find, by, where, exactCase, wholeCell],
    ),
  );
  const found = useMemo(() => previewReplacing(channels, wish, hand.context), [channels, wish, hand.context]);
  const changes = useMemo(() => replacingChanges(found), [found]);
  const cells = found.filter(({ set }) => set !== null).length;
  const places = useMemo(() => new Map(channels.map((channel) => [channel.id, channel.slot])), [channels]);
  useEscape(onClose);
  const run = (event: FormEvent) => {
    event.preventDefault();
    if (changes.length === 0) return;
    const result = table.change(changes);
    actions.setSaid(result.ok ? `Replaced in ${cells === 1 ? '1 cell' : `${cells} cells`}.` : result.reason);
    onClose();
  };
  const rows = found.map(({ id, column, before, after, reason }): ListRow => ({
    key: `${id} ${column}`,
    className: item,
    show: () => (
      <>
        <span className="mono text-soft">{slotText(places.get(id) ?? 0)}</span>{' '}
        {where === 'all' && <span className="text-soft">{HEADINGS[column]}: </span>}
        <s className="text-soft">{before}</s> <b className="font-medium">{after || 'empty'}</b>
        {reason !== null && <p className="text-stop">{reason}</p>}
      </>
    ),
  }));
  return (
    <form
      aria-label="Find and replace"
      onSubmit={run}
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet"
    >
      <div className="flex flex-col gap-2 border-b border-line p-3">
        <div className="grid grid-cols-2 gap-2">
          <Field
            id="replace-find"
            label="Find"
            autoFocus
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
          <Field
            id="replace-by"
            label="Replace by"
            value={by}
            onChange={(event) => setBy(event.target.value)}
          />
        </div>
        <div className="grid grid-cols-2 gap-2">
          <Choice
            label="In"
            value={where}
            options={[...TEXTS.map((column) => [column, HEADINGS[column]] as const), ['all', 'All columns']]}
            onChange={setWhere}
          />
          <Choice
            label="Of"
            value={among}
            options={[
              ['shown', `the ${table.rows.length} shown`],
              ...(many ? ([['chosen', `the ${table.chosenChannels.length} chosen`]] as const) : []),
            ]}
            onChange={setAmong}
          />
        </div>
        <div className="flex gap-4 text-[13px]">
          <TickField checked={exactCase} onChange={setExactCase}>
            same letters
          </TickField>
          <TickField checked={wholeCell} onChange={setWholeCell}>
            whole cell
          </TickField>
        </div>
      </div>
      {find !== '' && found.length === 0 ? (
        <p role="status" className="flex-1 p-3 text-[13px] text-soft">
          It stands nowhere there.
        </p>
      ) : (
        <LongList label="What is replaced" rows={rows} rowHeight={37} plain />
      )}
      <div className="flex gap-2 border-t border-line p-3">
        <Button kind="strong" type="submit" className="flex-1" disabled={changes.length === 0}>
          {cells === 1 ? 'Replace 1' : `Replace ${cells}`}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}
