// Loaded into each thread of the application by a test: throws in those that are not the main one as soon as a file is there.
import { existsSync, unlinkSync } from 'node:fs';
import { isMainThread } from 'node:worker_threads';

const file = process.env.VERIDON_BREAK_FILE;
if (!isMainThread && file)
  setInterval(() => {
    if (!existsSync(file)) return;
    unlinkSync(file);
    throw new Error('broken by a test');
  }, 20).unref();
