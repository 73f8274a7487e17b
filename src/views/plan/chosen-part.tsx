import type { ReactNode } from 'react';

/** A part of what is said of the chosen. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="flex flex-col gap-2 border-b border-line px-3 py-2.5">
      <h2 className="text-[12px] font-semibold text-soft">{title}</h2>
      {children}
    </section>
  );
}
