import { parentPort } from 'node:worker_threads';

/**
 * Ends the reader process from a second thread: a signal works even while the main thread is in a loop. The limits come from the environment: seconds of
 * processor time, which do not depend on how busy the machine is, and bytes of memory.
 */

const seconds = Number(process.env.VERIDON_READER_SECONDS);
const bytes = Number(process.env.VERIDON_READER_BYTES);
const parent = process.ppid;

const end = (signal: NodeJS.Signals) => process.kill(process.pid, signal);

setInterval(() => {
  const { user, system } = process.cpuUsage();
  if ((user + system) / 1e6 > seconds) end('SIGALRM');
  if (process.memoryUsage.rss() > bytes) end('SIGTERM');
  // The server has ended, so the process has another parent now.
  if (process.ppid !== parent) end('SIGKILL');
}, 100);
parentPort?.unref();
