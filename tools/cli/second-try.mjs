import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { ROOT } from './paths.mjs';

/**
 * Reporter of Vitest: writes the names of the tests that passed at the second try only, as a list of
 * strings in JSON, to the file that MAYPOLE_SECOND_TRIES names. What is not steady is told, never hidden.
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
