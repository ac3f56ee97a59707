import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { ROOT } from './paths.mjs';

/**
 * Vitest reporter: writes the names of tests that passed only at the second attempt, as a JSON list of strings, to the
 * file that MAYPOLE_SECOND_TRIES names. Flaky tests are reported, never hidden.
 */
export default class SecondTries {
  names = [];

  onTestCaseResult(test) {
    if (!test.diagnostic()?.flaky) return;
    this.names.push(`${path.relative(ROOT, test.module.moduleId)} › ${test.fullName}`);
  }

  onTestRunEnd() {
    const file = process.env.MAYPOLE_SECOND_TRIES;
    if (file) writeFileSync(file, JSON.stringify(this.names));
  }
}
