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
} from '@/core/radio';
import type { Channel, Column } from '@/core/plan';
import { slotText } from '@/core/plan';
import type { Extra } from '@/core/table';
import type { FindingOfChannel } from '@/core/check';
import { SeverityMark } from '@/ui';

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

/** How what stands in a cell is written; an element more in each cell is a tenth more to lay out in each frame of scrolling. */
const WRITTEN: Record<Column, string> = {
  slot: 'mono text-soft',
  name: 'font-medium',
  rx: 'mono text-receive',
  tx: 'mono text-transmit',
  access: 'mono',
  mode: 'text-[12.5px]',
  power: 'mono text-[12.5px]',
  scan: 'text-[12.5px]',
};
/** A line, dashes, dots: told apart without their colours too. (Waves cost a fifth of a frame of scrolling.) */
const UNDERLINED = {
  stop: 'underline decoration-2 underline-offset-4 decoration-stop',
  caution: 'underline decoration-2 underline-offset-4 decoration-caution-mark decoration-dashed',
  hint: 'underline decoration-2 underline-offset-4 decoration-hint decoration-dotted',
};

function Content({ channel, column, onRadio }: { channel: Channel; column: Column; onRadio: string | null }) {
  switch (column) {
    case 'slot':
      return slotText(channel.slot);
    case 'name': {
      const name = channel.name || <span className="text-soft">no name</span>;
      if (onRadio === null || onRadio.toLowerCase() === channel.name.toLowerCase()) return name;
      return (
        <>
          <span className="min-w-0 flex-1 truncate">{name}</span>
          <span
            className="mono hidden text-[12px] font-normal text-soft @min-[664px]:inline"
            title="On the radio"
          >
            {onRadio}
          </span>
        </>
      );
    }
    case 'rx':
      return formatFrequency(channel.rx);
    case 'tx':
      if (channel.tx === null)
        return (
          <span className="rounded-sm border border-line-strong px-1.5 py-px font-sans text-[12.5px] text-soft">
            listen only
          </span>
        );
      if (channel.tx === channel.rx) return <span className="font-sans text-soft">same</span>;
      return (
        <>
          {formatFrequency(channel.tx)}{' '}
          <span className="text-[12px] text-soft">
            {formatShift(channel.tx - channel.rx).replace('-', '−')}
          </span>
        </>
      );
    case 'access': {
      const text = formatAccess(channel.access);
      if (text === '') return <span className="font-sans text-soft">open</span>;
      return (
        <span className="rounded-sm bg-sunk px-1 py-px" title={describeAccess(channel.access)}>
          {text}
        </span>
      );
    }
    case 'mode':
      return isDigital(channel.mode) ? <b className="font-semibold">{channel.mode}</b> : channel.mode;
    case 'power':
      return channel.tx === null ? '–' : formatPower(channel.power);
    case 'scan':
      return channel.scan ? 'yes' : <span className="text-soft">no</span>;
  }
}

export interface RowProps {
  channel: Channel;
  row: number;
  top: number;
  /** What the display reads; null where the radio cannot hold the channel. */
  onRadio: string | null;
  findings: readonly FindingOfChannel[] | undefined;
  chosen: boolean;
  /** The column with the focus, where it is in this row. */
  active: Column | null;
  /** First and last column of the block, by number, where the row is in it. */
  blockFrom: number;
  blockTo: number;
  drafts: Readonly<Partial<Record<Column, string>>> | undefined;
  /** The columns in their order, and their tracks. */
  columns: readonly Column[];
  template: string;
  /** What stands behind them; the name stays in sight then. */
  extras: readonly Extra[];
  extraOf: ((channel: Channel, extra: Extra) => string) | null;
  wide: boolean;
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
  columns,
  template,
  extras,
  extraOf,
  wide,
}: RowProps) {
  const worst = findings?.[0];
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      data-channel={channel.id}
      aria-selected={chosen}
      className={clsx(
        // What happens in a row changes nothing outside it: the browser lays out and paints that row alone.
        'absolute left-0 right-0 grid items-stretch border-b border-line [contain:strict]',
        chosen && 'bg-wash-faint',
      )}
      style={{ top, height: ROW_HEIGHT, gridTemplateColumns: template }}
    >
      <div role="gridcell" aria-colindex={1} className="grid place-items-center">
        {worst && <SeverityMark severity={worst.severity} />}
      </div>
      {columns.map((column, index) => {
        const found = findings?.find((finding) => finding.field === column);
        const draft = drafts?.[column];
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
              'truncate px-1.5 leading-[28px]',
              column === 'name' && 'flex gap-2',
              column === 'name' && wide && 'sticky left-0 z-[1] bg-sheet',
              column === 'slot' && chosen && 'cursor-grab',
              chosen && index >= blockFrom && index <= blockTo && 'bg-wash',
              active === column && 'outline-2 -outline-offset-2 outline-ink',
              draft === undefined ? WRITTEN[column] : 'mono bg-stop-wash text-stop',
              // Copper on the wash of what is chosen, dark enough to be read.
              column === 'tx' && chosen && index >= blockFrom && index <= blockTo && 'on-wash',
              found && UNDERLINED[found.severity],
            )}
          >
            {draft === undefined ? (
              <Content channel={channel} column={column} onRadio={onRadio} />
            ) : (
              draft || 'empty'
            )}
          </div>
        );
      })}
      {extras.map((extra, index) => (
        <div
          key={extra}
          role="gridcell"
          aria-colindex={columns.length + index + 2}
          className="truncate px-1.5 text-[12.5px] leading-[28px] text-soft"
        >
          {extraOf?.(channel, extra)}
        </div>
      ))}
    </div>
  );
});
