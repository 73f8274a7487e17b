import '@fontsource-variable/instrument-sans';
import '@fontsource/commit-mono/400.css';
import '@fontsource/commit-mono/700.css';
import './globals.css';
import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { readOnlyBecause } from '@/server';
import { Shell, themePreference } from '@/views/shell';

/** Nothing is drawn beforehand: every page shows what is on disk now, and a build must open nobody's data. */
export const dynamic = 'force-dynamic';

export const metadata: Metadata = { title: { default: 'Veridon', template: '%s · Veridon' } };

export default async function Layout({ children }: { children: ReactNode }) {
  const theme = themePreference.read((await cookies()).get(themePreference.cookie)?.value);
  return (
    <html lang="en" data-theme={theme}>
      <body>
        <Shell readOnly={readOnlyBecause()}>{children}</Shell>
      </body>
    </html>
  );
}
