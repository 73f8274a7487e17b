'use client';

import { Button } from '@/ui';

/** Opens the browser's own way to print. */
export const PrintButton = () => (
  <Button kind="strong" onClick={() => window.print()}>
    Print
  </Button>
);
