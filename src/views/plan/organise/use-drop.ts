'use client';

import { useState, type DragEvent } from 'react';
import type { ChannelId } from '@/core/plan';

/** What is carried by the mouse: ids, a line each. */
const CARRIED = 'application/x-veridon-channels';

/** Takes channels along that are carried by the mouse. */
export function carryAlong(data: DataTransfer, ids: Iterable<ChannelId>): void {
  data.setData(CARRIED, [...ids].join('\n'));
  data.effectAllowed = 'copyMove';
}

/** A place where carried channels may be let go: whether they are over it, and what it listens to. */
export function useDrop(onDropped: (ids: ChannelId[], copy: boolean) => void) {
  const [over, setOver] = useState(false);
  return {
    over,
    handlers: {
      onDragOver(event: DragEvent) {
        if (!event.dataTransfer.types.includes(CARRIED)) return;
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop(event: DragEvent) {
        event.preventDefault();
        setOver(false);
        onDropped(
          event.dataTransfer.getData(CARRIED).split('\n').filter(Boolean) as ChannelId[],
          event.ctrlKey,
        );
      },
    },
  };
}
