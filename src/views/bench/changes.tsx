import clsx from 'clsx';
import type { BesideChange, ContentChange } from '@/core/compare';
import { placeText, type FittedChannel, type Model } from '@/core/models';
import { formatFrequency } from '@/core/radio';
import { LongList, type ListRow } from '@/ui';

/** Of a row of what changes, px. */
const ROW_HEIGHT = 28;

/** What a write changes beside the channels: a bank, a quick set-up, a setting. */
const besideRow = ({ mark, title, text, restart, unitOwn }: BesideChange): ListRow => ({
  key: title,
  className: 'flex h-7 items-center gap-3 border-b border-line text-[13px]',
  show: () => (
    <>
      <span className="w-16 shrink-0 text-soft">{mark}</span>
      <span className="shrink-0 font-medium">{title}</span>
      <span className="min-w-0 flex-1 truncate text-soft" title={text}>
        {text}
      </span>
      {unitOwn && <span className="shrink-0 text-soft">this unit’s own</span>}
      {restart && <span className="shrink-0 text-caution">wants switching off and on</span>}
    </>
  ),
});

/** What a write changes, slot by slot, in plain words. */
export function Changes({
  of: { change, besides },
  model,
  label = 'What the write changes',
}: {
  /** `change` is null where what is there is not known. */
  of: { change: ContentChange | null; besides: BesideChange[] };
  model: Model;
  label?: string;
}) {
  if (!change)
    return (
      <p className="text-[13px] text-soft">
        What it holds is not known yet: nothing can be said of what would change.
      </p>
    );
  const row = (mark: string, channel: FittedChannel, text?: string): ListRow => ({
    key: `${mark} ${channel.list} ${channel.slot}`,
    className: 'flex h-7 items-center gap-3 border-b border-line text-[13px]',
    show: () => (
      <>
        <span className="w-16 shrink-0 text-soft">{mark}</span>
        <span className="mono shrink-0 text-soft">{placeText(model, channel)}</span>
        <span className={clsx('mono min-w-14 truncate', text ? 'w-24' : 'w-36')} title={channel.name}>
          {channel.name || '–'}
        </span>
        {text ? (
          <span className="min-w-0 flex-1 truncate text-soft" title={text}>
            {text}
          </span>
        ) : (
          <>
            <span className="mono w-20 shrink-0 text-receive">{formatFrequency(channel.rx)}</span>
            {channel.tx === null || channel.tx === channel.rx ? (
              <span className="w-20 shrink-0 whitespace-nowrap text-soft">
                {channel.tx === null ? 'listen only' : 'same'}
              </span>
            ) : (
              <span className="mono w-20 shrink-0 text-transmit">{formatFrequency(channel.tx)}</span>
            )}
          </>
        )}
      </>
    ),
  });
  const rows = [
    ...besides.map(besideRow),
    ...change.added.map((channel) => row('new', channel)),
    ...change.changed.map(({ after, text }) => row('changed', after, text)),
    ...change.removed.map((channel) => row('emptied', channel)),
  ];
  return rows.length === 0 ? null : (
    <div className="flex min-h-0 shrink flex-col" style={{ height: rows.length * ROW_HEIGHT }}>
      <LongList label={label} rows={rows} rowHeight={ROW_HEIGHT} plain />
    </div>
  );
}
