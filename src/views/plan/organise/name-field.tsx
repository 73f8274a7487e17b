'use client';

import clsx from 'clsx';
import { useState } from 'react';

/** A name that is changed where it stands: kept with Enter or when it is left, thrown away with Escape. */
export function NameField({
  label,
  name,
  limit,
  onName,
  className,
}: {
  label: string;
  name: string;
  limit: number;
  /** Hears of another name, trimmed and not empty. */
  onName: (name: string) => void;
  className?: string;
}) {
  const [text, setText] = useState<string | null>(null);
  const keep = () => {
    const next = text?.trim();
    if (next && next !== name) onName(next);
    setText(null);
  };
  return (
    <input
      aria-label={label}
      maxLength={limit}
      value={text ?? name}
      onChange={(event) => setText(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
        if (event.key === 'Escape') setText(null);
      }}
      className={clsx(
        'h-7 min-w-0 flex-1 rounded border border-transparent bg-transparent px-1 hover:border-line focus:border-line-strong focus:bg-sheet',
        className,
      )}
    />
  );
}
