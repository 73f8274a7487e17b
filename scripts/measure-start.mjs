// Part of npm run measure: from the command to the address.
import { join } from 'node:path';

/** Start of the demo when everything is installed and built: with an empty data directory, and with one that is there. */
export async function measureStart({ demo, folder, report }) {
  const first = [];
  const again = [];
  for (let run = 0; run < 3; run++) {
    const data = join(folder, `start-${run}`);
    const one = await demo(data, 4);
    first.push(one.ms);
    await one.stop();
    const two = await demo(data, 4);
    again.push(two.ms);
    await two.stop();
  }
  report('Demo start, installed and built, new data directory', first, 'ms');
  report('Demo start, data directory there already', again, 'ms');
}
