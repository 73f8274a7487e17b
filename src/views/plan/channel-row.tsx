'use client';

import clsx from 'clsx';
import { memo } from 'react';
import {
  describeAccess,
  formatAccess,
  formatFrequency,
  formatPower,
  formatShift,
  isDigital,
  type Access,
} from '@/core/radio';
import { COLUMNS, type Channel, type Column, slotText } from '@/core/plan';
import type { Finding } from '@/core/check';
import { SeverityMark } from '@/ui';

/** Widths of the table: the mark, then the columns. */
export const TEMPLATE =
  '24px 42px minmax(104px,2.2fr) minmax(92px,0.5fr) minmax(130px,1fr) minmax(84px,1fr) minmax(46px,0.35fr) minmax(54px,0.4fr) minmax(42px,0.3fr)';
export const ROW_HEIGHT = 29;

export const HEADINGS: Record<Column, string> = {
  slot: 'Slot',
  name: 'Name',
  rx: 'Receive',
  tx: 'Transmit',
  access: 'Access',
  mode: 'Mode',
  power: 'Power',
  scan: 'Scan',
};

function AccessChip({ access }: { access: Access }) {
  const text = formatAccess(access);
  if (text === '') return <span className="text-soft">open</span>;
  return (
    <span
      className="mono whitespace-nowrap rounded-sm bg-sunk px-1"
      aria-label={describeAccess(access)}
      title={describeAccess(access)}
    >
      {text}
    </span>
  );
}

function Content({ channel, column, onRadio }: { channel: Channel; column: Column; onRadio: string | null }) {
  switch (column) {
    case 'slot':
      return <span className="mono text-soft">{slotText(channel.slot)}</span>;
    case 'name':
      return (
        <span className="flex min-w-0 flex-1 items-baseline justify-between gap-2">
          <span className={clsx('truncate font-medium', !channel.name && 'text-soft')}>
            {channel.name || 'no name'}
          </span>
          {onRadio !== null && onRadio.toLowerCase() !== channel.name.toLowerCase() && (
            <span
              className="mono hidden shrink-0 text-[12px] text-soft @min-[664px]:inline"
              title="On the radio"
            >
              {onRadio}
            </span>
          )}
        </span>
      );
    case 'rx':
      return <span className="mono text-receive">{formatFrequency(channel.rx)}</span>;
    case 'tx':
      if (channel.tx === null)
        return (
          <span className="rounded-sm border border-line-strong px-1.5 text-[12.5px] text-soft">
            listen only
          </span>
        );
      if (channel.tx === channel.rx) return <span className="text-soft">same</span>;
      return (
        <span className="mono text-transmit">
          {formatFrequency(channel.tx)}{' '}
          <span className="text-[12px] text-soft">
            {formatShift(channel.tx - channel.rx).replace('-', '−')}
          </span>
        </span>
      );
    case 'access':
      return <AccessChip access={channel.access} />;
    case 'mode':
      return (
        <span className={clsx('text-[12.5px]', isDigital(channel.mode) && 'font-semibold')}>
          {channel.mode}
        </span>
      );
    case 'power':
      return (
        <span className="mono text-[12.5px]">{channel.tx === null ? '–' : formatPower(channel.power)}</span>
      );
    case 'scan':
      return (
        <span className="text-[12.5px]">{channel.scan ? 'yes' : <span className="text-soft">no</span>}</span>
      );
  }
}

export interface RowProps {
  channel: Channel;
  row: number;
  top: number;
  /** What the display reads; null where the radio cannot hold the channel. */
  onRadio: string | null;
  findings: readonly Finding[] | undefined;
  chosen: boolean;
  /** The column with the focus, where it is in this row. */
  active: Column | null;
  /** First and last column of the block, by number, where the row is in it. */
  blockFrom: number;
  blockTo: number;
  drafts: Readonly<Partial<Record<Column, string>>> | undefined;
}

/** One channel. Drawn again only when something about it has changed. */
export const ChannelRow = memo(function ChannelRow({
  channel,
  row,
  top,
  onRadio,
  findings,
  chosen,
  active,
  blockFrom,
  blockTo,
  drafts,
}: RowProps) {
  const worst = findings?.[0];
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      aria-selected={chosen}
      className={clsx(
        // What happens in a row changes nothing outside it: the browser lays out and paints that row alone.
        'absolute left-0 right-0 grid items-stretch border-b border-line [contain:strict]',
        chosen && 'bg-wash-faint',
      )}
      style={{ top, height: ROW_HEIGHT, gridTemplateColumns: TEMPLATE }}
    >
      <div role="gridcell" aria-colindex={1} className="grid place-items-center">
        {worst && <SeverityMark severity={worst.severity} />}
      </div>
      {COLUMNS.map((column, index) => {
        const found = findings?.find((finding) => finding.field === column);
        return (
          <div
            key={column}
            id={`cell-${row}-${column}`}
            role={column === 'name' ? 'rowheader' : 'gridcell'}
            aria-colindex={index + 2}
            aria-selected={chosen && index >= blockFrom && index <= blockTo}
            aria-description={found ? `${found.severity}: ${found.text}` : undefined}
            data-row={row}
            data-column={column}
            title={found?.text}
            className={clsx(
              'flex min-w-0 items-center overflow-hidden px-1.5',
              column === 'slot' && chosen && 'cursor-grab',
              chosen && index >= blockFrom && index <= blockTo && 'bg-wash',
              active === column && 'outline-2 -outline-offset-2 outline-ink',
              drafts?.[column] !== undefined && 'bg-stop-wash',
            )}
          >
            <span
              className={clsx(
                'flex min-w-0 flex-1',
                found && 'underline decoration-2 underline-offset-4',
                found?.severity === 'stop' && 'decoration-stop decoration-wavy',
                found?.severity === 'caution' && 'decoration-caution-mark decoration-wavy',
                found?.severity === 'hint' && 'decoration-hint decoration-dotted',
              )}
            >
              {drafts?.[column] !== undefined ? (
                <span className="mono truncate text-stop">{drafts[column] || 'empty'}</span>
              ) : (
                <Content channel={channel} column={column} onRadio={onRadio} />
              )}
            </span>
          </div>
        );
      })}
    </div>
  );
});
