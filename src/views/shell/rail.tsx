'use client';

import clsx from 'clsx';
import { Archive, CircuitBoard, NotebookTabs, RadioTower, UsersRound } from 'lucide-react';
import Link from 'next/link';
import { usePathname, useSearchParams } from 'next/navigation';
import { Suspense } from 'react';

const PLACES = [
  { href: '/', label: 'Plans', icon: NotebookTabs, also: '/plans' },
  { href: '/find', label: 'Find', icon: RadioTower, also: '/find' },
  { href: '/people', label: 'People', icon: UsersRound, also: '/people' },
  { href: '/bench', label: 'Bench', icon: CircuitBoard, also: '/bench' },
  { href: '/data', label: 'Data', icon: Archive, also: '/data' },
] as const;

/** The plan that is being worked on, so that Find and Bench open for it. */
function usePlanInHand(): string | null {
  const path = usePathname();
  const query = useSearchParams();
  return /^\/plans\/([^/]+)/.exec(path)?.[1] ?? query.get('plan');
}

function Places() {
  const path = usePathname();
  const plan = usePlanInHand();
  return PLACES.map(({ href, label, icon: Icon, also }) => {
    const here = path === href || path.startsWith(also);
    const target =
      href === '/'
        ? plan && !path.startsWith('/plans')
          ? `/plans/${plan}`
          : '/'
        : plan
          ? `${href}?plan=${plan}`
          : href;
    return (
      <Link
        prefetch={false}
        key={href}
        href={target}
        aria-current={here ? 'page' : undefined}
        className={clsx(
          'flex w-full flex-col items-center gap-1 rounded-md py-2 text-[12px]',
          here ? 'bg-sheet font-semibold' : 'text-soft hover:text-ink',
        )}
      >
        <Icon size={19} strokeWidth={here ? 2 : 1.6} aria-hidden />
        {label}
      </Link>
    );
  });
}

/** Veridon's mark: a receive tick and a transmit tick, joined by the arc of their shift. */
function Mark() {
  return (
    <svg width="30" height="24" viewBox="0 0 30 24" role="img" aria-label="Veridon">
      <path d="M6 15C8 2 22 2 24 15" fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M6 22V10" stroke="var(--receive)" strokeWidth="3.2" />
      <path d="M24 22V10" stroke="var(--transmit)" strokeWidth="3.2" />
      <path d="M1 22h28" stroke="var(--ink)" strokeWidth="1.2" />
    </svg>
  );
}

/** The places of the application, along the left edge of the chart table. */
export function Rail() {
  return (
    <div className="flex h-full shrink-0 print:hidden">
      <nav aria-label="Places" className="flex w-[68px] flex-col items-center gap-1 px-1.5 py-3">
        <Link prefetch={false} href="/" className="mb-3" aria-label="Veridon, all plans">
          <Mark />
        </Link>
        <Suspense>
          <Places />
        </Suspense>
      </nav>
      <div className="neatline w-[7px]" aria-hidden />
    </div>
  );
}
