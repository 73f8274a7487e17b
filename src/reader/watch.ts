import { parentPort } from 'node:worker_threads';

/**
 * Ends the process that reads, from a thread beside it: a signal reaches it in the middle of a loop. Its limits are in its environment: seconds of
 * computing, which is what a file costs, however busy the machine is, and bytes of memory.
 */

const seconds = Number(process.env.VERIDON_READER_SECONDS);
const bytes = Number(process.env.VERIDON_READER_BYTES);
const parent = process.ppid;

const end = (signal: NodeJS.Signals) => process.kill(process.pid, signal);

setInterval(() => {
  const { user, system } = process.cpuUsage();
  if ((user + system) / 1e6 > seconds) end('SIGALRM');
  if (process.memoryUsage.rss() > bytes) end('SIGTERM');
  // Who asked has ended: whoever looks after it now is another.
  if (process.ppid !== parent) end('SIGKILL');
}, 100);
parentPort?.unref();
