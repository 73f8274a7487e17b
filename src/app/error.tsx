'use client';

import { Broken } from '@/views/shell';

/** What is shown where a page could not be made; the reason is in the server's output. */
export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return <Broken onAgain={reset} />;
}
