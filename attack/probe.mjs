// A thread that asks the application the cheapest thing there is, again and again, and notes how long it takes: so long others wait for theirs.
import { request, Agent } from 'node:http';
import { parentPort, workerData } from 'node:worker_threads';

const agent = new Agent({ keepAlive: true, maxSockets: 1 });
/** Between two questions, ms. */
const PAUSE = 4;
let worst = 0;

const once = () =>
  new Promise((done) => {
    const began = performance.now();
    const end = () => {
      worst = Math.max(worst, performance.now() - began);
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
