'use client';

import { useMemo, useState } from 'react';
import { sentenceOf } from '@/api/ask';
import { mostDoubtful } from '@/core/heard';
import { decodeText, FILE_LIMIT, readHeardLog, type HeardLog } from '@/core/interchange';
import { slotText, type ChannelId } from '@/core/plan';
import { leaveOver } from '@/core/table';
import { Button, Field, LongList, Moment, TickField, useEscape, type ListRow } from '@/ui';
import { pickFile } from '@/views/parts/pick-file';
import { useDesk } from './desk';
import { HeardWeeks } from './heard-weeks';
import { item } from './side-list';

/** Times that are said in one go. */
const AT_ONCE = 5000;

/** What is never heard, the most doubtful first, to be left over as one step; and a log of what was heard, read from a file. */
export function HeardPanel({ onClose }: { onClose: () => void }) {
  const { hand, actions, table } = useDesk();
  const { plan, heard, heardAsked } = hand;
  const [weeks, setWeeks] = useState('8');
  const [kept, setKept] = useState<ReadonlySet<ChannelId>>(new Set());
  const [log, setLog] = useState<(HeardLog & { name: string }) | null>(null);
  const [trouble, setTrouble] = useState('');
  const [byWeek, setByWeek] = useState(false);
  useEscape(onClose);
  const n = /^\d{1,3}$/.test(weeks.trim()) ? Number(weeks) : null;
  const doubtful = useMemo(
    () => (n === null ? [] : mostDoubtful(plan.channels, heard, heardAsked, n)),
    [plan.channels, heard, heardAsked, n],
  );
  const going = doubtful.filter(({ id }) => !kept.has(id));
  const rows = doubtful.map((channel): ListRow => ({
    key: channel.id,
    className: item,
    show: () => (
      <div className="flex items-center gap-2">
        <TickField
          className="min-w-0 flex-1"
          checked={!kept.has(channel.id)}
          onChange={(on) =>
            setKept((now) => {
              const next = new Set(now);
              if (on) next.delete(channel.id);
              else next.add(channel.id);
              return next;
            })
          }
        >
          <span className="mono text-soft">{slotText(channel.slot)}</span> {channel.name || 'no name'}
        </TickField>
        <span className="text-[12px] text-soft">
          {heard.has(channel.id) ? <Moment at={heard.get(channel.id)!.last} /> : 'never'}
        </span>
      </div>
    ),
  }));
  const readLog = async (file: File) => {
    setLog(null);
    setTrouble('');
    if (file.size > FILE_LIMIT)
      return setTrouble(`${file.name} is larger than ${FILE_LIMIT / 1e6} MB. Nothing was read; part it.`);
    const decoded = decodeText(new Uint8Array(await file.arrayBuffer()));
    const read = decoded.ok ? readHeardLog(decoded.value.text, plan.channels) : decoded;
    if (read.ok) setLog({ ...read.value, name: file.name });
    else setTrouble(read.reason);
  };
  const keepLog = async () => {
    if (!log) return;
    try {
      let added = 0;
      for (let from = 0; from < log.heard.length; from += AT_ONCE)
        added += (
          await hand.hear(
            log.heard
              .slice(from, from + AT_ONCE)
              .map(({ channel, at }) => ({ channel, at: new Date(at).toISOString() })),
          )
        ).added;
      actions.setSaid(`${added} times are new, ${log.heard.length - added} were known.`);
      setLog(null);
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
  };
  return (
    <section
      aria-label="What is heard"
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet text-[13px]"
    >
      <div className="flex items-center gap-2 border-b border-line px-3 py-2">
        <div
          role="group"
          aria-label="What is shown"
          className="flex rounded-md border border-line-strong p-px"
        >
          {(['Never heard', 'By week'] as const).map((label, at) => (
            <button
              key={label}
              type="button"
              aria-pressed={byWeek === (at === 1)}
              className="rounded-[5px] px-2 py-[3px] text-soft hover:text-ink aria-pressed:bg-wash aria-pressed:font-medium aria-pressed:text-ink"
              onClick={() => setByWeek(at === 1)}
            >
              {label}
            </button>
          ))}
        </div>
        <span className="flex-1" />
        <Button size="small" onClick={() => pickFile((file) => void readLog(file))}>
          Take a log…
        </Button>
      </div>
      {!byWeek && (
        <Field
          label="Not heard in so many weeks"
          className="border-b border-line px-3 py-2 [&_input]:w-full"
          inputMode="numeric"
          value={weeks}
          problem={n === null ? 'A number' : undefined}
          onChange={(event) => setWeeks(event.target.value)}
        />
      )}
      {trouble && (
        <p role="alert" className="border-b border-line px-3 py-2 text-stop">
          {trouble}
        </p>
      )}
      {log && (
        <div className="border-b border-line px-3 py-2" role="status">
          <p>
            <b className="font-semibold">{log.name}</b>: {log.heard.length} times in UTC
            {log.refused.length > 0 &&
              `, ${log.refused.length === 1 ? '1 row' : `${log.refused.length} rows`} not taken`}
          </p>
          {log.refused.slice(0, 3).map(({ line, text, reason }) => (
            <p key={line} className="text-soft">
              Line {line} <span className="mono text-[12px]">{text}</span>: {reason}
            </p>
          ))}
          <Button
            size="small"
            className="mt-1"
            disabled={log.heard.length === 0}
            onClick={() => void keepLog()}
          >
            Keep them
          </Button>
        </div>
      )}
      {byWeek ? (
        <HeardWeeks />
      ) : doubtful.length === 0 ? (
        <p className="flex-1 p-3 text-soft">Every channel was heard of late.</p>
      ) : (
        <LongList label="Never heard, the most doubtful first" rows={rows} rowHeight={37} plain />
      )}
      <div className="flex gap-2 border-t border-line p-3">
        {!byWeek && (
          <Button
            kind="strong"
            className="flex-1"
            disabled={going.length === 0}
            onClick={() => {
              const result = hand.store.apply(leaveOver(plan, new Set(going.map(({ id }) => id))));
              actions.setSaid(
                result.ok ? `${going.length} wait left over. Ctrl Z brings them back.` : result.reason,
              );
              table.setOrder(null);
              onClose();
            }}
          >
            {going.length === 1 ? 'Leave 1 over' : `Leave ${going.length} over`}
          </Button>
        )}
        <Button className={byWeek ? 'flex-1' : ''} onClick={onClose}>
          Close
        </Button>
      </div>
    </section>
  );
}
