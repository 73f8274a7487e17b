'use client';

import { Broken } from '@/views/shell';

// Asked for as a whole: what was made in part is of no use.
const again = () => location.reload();

/** What is shown where a page could not be made. */
export default function ErrorPage() {
  return <Broken onAgain={again} />;
}
