import { startSim } from './server';

/**
 * The bench process: `VERIDON_BENCH_PORT`, `VERIDON_BENCH_DIR`, `VERIDON_BENCH_SPEED`, `VERIDON_ROLL_PEOPLE` and
 * `VERIDON_BOARD_KEY_UPS` set it up.
 */
const port = Number(process.env.VERIDON_BENCH_PORT ?? 4321);
const folder = process.env.VERIDON_BENCH_DIR ?? '.data/bench';
const speed = Number(process.env.VERIDON_BENCH_SPEED ?? 1);
const numberOf = (text: string | undefined) => (text === undefined ? undefined : Number(text));
const people = numberOf(process.env.VERIDON_ROLL_PEOPLE);
const keyUps = numberOf(process.env.VERIDON_BOARD_KEY_UPS);

startSim({ port, folder, speed, people, keyUps, plugged: process.env.VERIDON_BENCH_PLUGGED }).then(
  (sim) => {
    console.log(`Bench ready at http://127.0.0.1:${sim.port} (lines ${speed} times as fast as real)`);
    const stop = () => {
      sim.close();
      process.exit(0);
    };
    process.on('SIGTERM', stop);
    process.on('SIGINT', stop);
  },
  (error: NodeJS.ErrnoException) => {
    if (error.code === 'EADDRINUSE')
      console.error(`Port ${port} is taken by another program. Set VERIDON_BENCH_PORT to a free one.`);
    else console.error(`The bench could not start: ${error.message}`);
    process.exit(1);
  },
);
