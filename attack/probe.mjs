// A thread that asks the application the cheapest thing there is, again and again, and notes how long it takes: so long others wait for theirs. Time in which
// the machine ran neither thread, because all its cores were busy, is deducted: it belongs to the machine.
import { readFileSync } from 'node:fs';
import { request, Agent } from 'node:http';
import { parentPort, workerData } from 'node:worker_threads';

const agent = new Agent({ keepAlive: true, maxSockets: 1 });
/** Between two questions, ms. */
const PAUSE = 4;
let worst = 0;

/** How long a thread was ready and did not run so far, ms: the second number of its schedstat, in ns. */
const waited = (path) => {
  try {
    return Number(readFileSync(path, 'utf8').split(' ')[1]) / 1e6;
  } catch {
    return 0;
  }
};
const notRun = () => [
  waited(`/proc/${workerData.pid}/task/${workerData.pid}/schedstat`),
  waited('/proc/thread-self/schedstat'),
];

const once = () =>
  new Promise((done) => {
    const before = notRun();
    const began = performance.now();
    const end = () => {
      const took = performance.now() - began;
      // The longer of the two, not both: they may have waited at the same time.
      worst = Math.max(worst, took - Math.max(...notRun().map((now, at) => now - before[at])));
      done();
    };
    request(`${workerData.url}/api/nothing`, { agent }, (answer) => answer.resume().on('end', end))
      .on('error', end)
      .end();
  });

parentPort.on('message', (what) => {
  if (what === 'begin') worst = 0;
  else parentPort.postMessage(worst);
});
for (;;) {
  await once();
  await new Promise((done) => setTimeout(done, PAUSE));
}
