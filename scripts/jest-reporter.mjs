// What the jest runs here end with: how to run a failed test again, the slowest files, and the seed of the properties.
import { relative } from 'node:path';
import { seed } from './seed.mjs';

const SLOWEST = 10;

export default class Reporter {
  #files = [];
  #failed = [];

  onTestResult({ path }, { perfStats, testResults, testExecError }) {
    const file = relative(process.cwd(), path);
    this.#files.push({ file, seconds: (perfStats.end - perfStats.start) / 1000 });
    if (testExecError) this.#failed.push(`npm test -- ${file}`);
    for (const { status, fullName } of testResults)
      if (status === 'failed') this.#failed.push(`npm test -- ${file} -t ${quoted(pattern(fullName))}`);
  }

  onRunComplete() {
    const slowest = this.#files.sort((a, b) => b.seconds - a.seconds).slice(0, SLOWEST);
    if (this.#files.length > 1) {
      console.log('\nThe slowest files:');
      for (const { file, seconds } of slowest) console.log(`  ${seconds.toFixed(1).padStart(6)} s  ${file}`);
    }
    if (this.#failed.length > 0) {
      console.log('\nRun a failed test again:');
      for (const command of this.#failed) console.log(`  VERIDON_SEED=${seed} ${command}`);
    }
    console.log(`\nSeed of the properties: ${seed}`);
  }
}

/** The name as a pattern that finds it alone. */
const pattern = (name) => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
const quoted = (text) => `'${text.replaceAll("'", `'\\''`)}'`;
