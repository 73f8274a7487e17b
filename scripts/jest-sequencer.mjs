// The order of the test files: what takes longest comes first, so that no worker is left with it alone at the end.
import Sequencer from '@jest/test-sequencer';

const LONG = [
  /\/attack\//,
  /\/e2e\//,
  /\/src\/server\/.*(faults|people|several|jobs|live|backup)/,
  /\/src\/server\//,
];
const rank = ({ path }) => {
  const at = LONG.findIndex((pattern) => pattern.test(path));
  return at < 0 ? LONG.length : at;
};

export default class LongestFirst extends Sequencer {
  sort(tests) {
    // Of the same rank as jest has them: by how long they took before, or by their size.
    return super.sort(tests).sort((a, b) => rank(a) - rank(b));
  }
}
