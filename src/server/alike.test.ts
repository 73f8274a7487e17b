import { join } from 'node:path';
import { addModel, type Model } from '../core/models';
import { addFormat, formatOf } from '../core/models/formats';
import { ternP2 } from '../core/models/tern-p2';
import { startSim } from '../sim/server';
import { lookAtBench } from './bench';
import { dataFolder } from './data-folder.test.kit';
import { chooseModel } from './ports';

/** Two models that answer alike: nobody guesses which it is; a person says it once, and a unit is known by it from then on. */

const twin: Model = {
  ...ternP2,
  id: 'tern-p2-twin',
  name: 'Tern P2 Twin',
  names: { ...ternP2.names, length: 5 },
};

let bench: Awaited<ReturnType<typeof startSim>>;
let takeAway: (() => void)[];
dataFolder('alike', {
  async before(folder) {
    takeAway = [addModel(twin), addFormat(twin.id, formatOf(ternP2))];
    bench = await startSim({ port: 0, folder: join(folder, 'bench'), speed: 60 });
    process.env.VERIDON_BENCH_URL = `http://127.0.0.1:${bench.port}`;
    process.env.VERIDON_BENCH_DIR = join(folder, 'bench');
  },
  after: () => {
    bench.close();
    for (const take of takeAway) take();
  },
});

const plug = (unit: string, plugged: boolean) =>
  fetch(`http://127.0.0.1:${bench.port}/bench/radios/${unit}`, {
    method: 'POST',
    headers: { Authorization: `Bearer ${bench.key}` },
    body: JSON.stringify({ plugged }),
  });

test('what several models answer is nobody until a person says which; the unit is known by that when it comes back', async () => {
  await plug('tern-1', true);
  const { ports, radios } = await lookAtBench();
  expect(radios).toEqual([]);
  expect(ports).toMatchObject([
    {
      ...{ name: 'bench/tern-1', radioId: null },
      reason: '2 models answer as it does, and their memories differ.',
      choices: [
        { id: 'tern-p2', name: 'Larkmoor Tern P2' },
        { id: 'tern-p2-twin', name: 'Larkmoor Tern P2 Twin' },
      ],
    },
  ]);
  await expect(chooseModel('bench/tern-1', 'gannet-m8')).rejects.toMatchObject({ status: 409 });
  await expect(chooseModel('bench/tern-2', 'tern-p2')).rejects.toMatchObject({ status: 409 });
  await chooseModel('bench/tern-1', 'tern-p2-twin');
  const chosen = await lookAtBench();
  expect(chosen.radios).toMatchObject([
    { serial: 'LK204417', modelId: 'tern-p2-twin', port: 'bench/tern-1' },
  ]);
  expect(chosen.ports).toMatchObject([{ radioId: chosen.radios[0]!.id, choices: [] }]);

  // Pulled and put in again: its serial is known.
  await plug('tern-1', false);
  await lookAtBench();
  await plug('tern-1', true);
  expect((await lookAtBench()).ports).toMatchObject([{ radioId: chosen.radios[0]!.id, choices: [] }]);

  // Another unit is another question; what was said of the first says nothing of it.
  await plug('tern-2', true);
  const both = await lookAtBench();
  expect(both.ports.find(({ name }) => name === 'bench/tern-2')?.choices).toHaveLength(2);
  await chooseModel('bench/tern-2', 'tern-p2');
  expect((await lookAtBench()).radios.map(({ modelId }) => modelId).sort()).toEqual([
    'tern-p2',
    'tern-p2-twin',
  ]);
});
