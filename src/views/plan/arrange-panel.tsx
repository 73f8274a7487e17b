'use client';

import { useMemo, useState, type FormEvent } from 'react';
import { PLACEMENTS, PLACEMENT_NAMES, SORT_KEYS, slotText, type Placement, type SortKey } from '@/core/plan';
import { previewRearranging, rearranging, type Rearrangement } from '@/core/table';
import { Button, Choice, Field, Scroll, useEscape } from '@/ui';
import { HEADINGS } from './channel-row';
import { useDesk } from './desk';

interface Props {
  /** What was asked for when the panel was opened. */
  wish: Wish;
  onClose: () => void;
}

/** What the panel opens with. */
export interface Wish {
  how: Rearrangement['how'];
  key?: SortKey;
}

const number = (text: string) => (/^\d{1,4}$/.test(text.trim()) ? Number(text) : null);

/** Arranges slots: who goes where is shown as it is typed, before anything is changed. */
export function ArrangePanel({ wish, onClose }: Props) {
  const { hand, table, actions } = useDesk();
  const { plan } = hand;
  const n = table.chosenChannels.length;
  const [how, setHow] = useState(wish.how);
  const [key, setKey] = useState<SortKey>(wish.key ?? 'name');
  const [start, setStart] = useState(String(table.chosenChannels[0]?.slot ?? table.range.first));
  const [step, setStep] = useState('1');
  const [room, setRoom] = useState<Placement>('push-down');

  const first = number(start);
  const by = number(step);
  const preview = useMemo(() => {
    const arrangement: Rearrangement =
      how === 'sort'
        ? { how, key }
        : how === 'move'
          ? { how, at: first ?? 0, room }
          : how === 'renumber'
            ? { how, start: first ?? 0, step: by || 1 }
            : { how };
    return previewRearranging(plan, table.chosen, arrangement, table.range, table.list);
  }, [plan, table.chosen, table.range, table.list, how, key, first, by, room]);
  const wantsSlot = how === 'move' || how === 'renumber';
  const badSlot = wantsSlot && first === null;
  const badStep = how === 'renumber' && !by;
  const names = new Map(plan.channels.map((channel) => [channel.id, channel.name || 'no name']));
  const fits = preview.ok && !badSlot && !badStep ? preview.value : { moves: [], over: [] };
  const { moves: shown, over } = fits;
  const nothing = shown.length + over.length === 0;
  const reason = badSlot || badStep || preview.ok ? null : preview.reason;

  useEscape(onClose);
  const run = (event: FormEvent) => {
    event.preventDefault();
    const edit = rearranging(plan, how, fits);
    if (!edit) return;
    const result = hand.store.apply(edit);
    actions.setSaid(result.ok ? '' : result.reason);
    onClose();
  };
  const chosen = n === 1 ? 'the chosen one' : `the ${n} chosen`;
  return (
    <form
      aria-label="Arrange slots"
      onSubmit={run}
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet"
    >
      <div className="grid grid-cols-[5rem_1fr] gap-2 border-b border-line p-3">
        <Choice
          autoFocus={!wantsSlot}
          className="col-span-2"
          label="Arrange"
          value={how}
          options={[
            ...(n > 0
              ? ([
                  ['move', `Move ${chosen} to a slot`],
                  ['renumber', `Number ${chosen} anew`],
                ] as const)
              : []),
            ['sort', n > 1 ? `Sort ${chosen}` : 'Sort all'],
            ['close gaps', 'Close the gaps'],
          ]}
          onChange={setHow}
        />
        {how === 'sort' && (
          <Choice
            className="col-span-2"
            label="By"
            value={key}
            options={SORT_KEYS.map((one) => [one, HEADINGS[one]] as const)}
            onChange={setKey}
          />
        )}
        {wantsSlot && (
          <Field
            id="arrange-slot"
            autoFocus
            onFocus={(event) => event.currentTarget.select()}
            label={how === 'move' ? 'To slot' : 'From slot'}
            inputMode="numeric"
            value={start}
            onChange={(event) => setStart(event.target.value)}
            problem={badSlot ? 'A number' : undefined}
          />
        )}
        {how === 'renumber' && (
          <Field
            id="arrange-step"
            label="In steps of"
            inputMode="numeric"
            value={step}
            onChange={(event) => setStep(event.target.value)}
            problem={badStep ? '1 or more' : undefined}
          />
        )}
        {how === 'move' && (
          <Choice
            label="Making room"
            value={room}
            options={PLACEMENTS.map((one) => [one, PLACEMENT_NAMES[one]] as const)}
            onChange={setRoom}
          />
        )}
      </div>
      <Scroll live label="What moves" className="flex-1 px-3 py-2 text-[13px]">
        {reason !== null ? (
          <p className="text-stop">{reason}</p>
        ) : nothing ? (
          <p className="text-soft">{badSlot || badStep ? '' : 'Nothing moves: it stands so already.'}</p>
        ) : (
          <ol aria-label="Preview of the slots">
            {shown.map(({ id, from, to }) => (
              <li key={id} className="flex items-baseline gap-2 py-0.5">
                <span className="mono">{slotText(to)}</span>
                <span className="min-w-0 flex-1 truncate">
                  {names.get(id)}
                  {how === 'move' && !table.chosen.has(id) && <i className="text-soft"> pushed</i>}
                </span>
                <span className="mono text-[12px] text-soft">was {slotText(from)}</span>
              </li>
            ))}
            {over.map((id) => (
              <li key={id} className="flex items-baseline gap-2 py-0.5">
                <span className="mono text-stop">off</span>
                <span className="min-w-0 flex-1 truncate">{names.get(id)}</span>
                <span className="text-[12px] text-soft">left over</span>
              </li>
            ))}
          </ol>
        )}
      </Scroll>
      <div className="flex gap-2 border-t border-line p-3">
        <Button kind="strong" type="submit" className="flex-1" disabled={nothing}>
          {shown.length === 1 ? 'Move 1 channel' : `Move ${shown.length} channels`}
          {over.length > 0 && `, ${over.length} left over`}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}
