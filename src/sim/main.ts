import { startSim } from './server';

/** The bench process: `VERIDON_BENCH_PORT`, `VERIDON_BENCH_DIR`, `VERIDON_BENCH_SPEED` and `VERIDON_ROLL_PEOPLE` set it up. */
const port = Number(process.env.VERIDON_BENCH_PORT ?? 4321);
const folder = process.env.VERIDON_BENCH_DIR ?? '.data/bench';
const speed = Number(process.env.VERIDON_BENCH_SPEED ?? 1);
const { VERIDON_ROLL_PEOPLE } = process.env;
const people = VERIDON_ROLL_PEOPLE === undefined ? undefined : Number(VERIDON_ROLL_PEOPLE);

startSim({ port, folder, speed, people, plugged: process.env.VERIDON_BENCH_PLUGGED }).then(
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
