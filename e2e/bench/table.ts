import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter'

/** Prints what was measured as rows of the table of speeds, and what went wrong. */
export default class implements Reporter {
  onTestEnd(test: TestCase, result: TestResult) {
    for (const a of test.annotations) if (a.type === 'speed') console.log(a.description)
    if (result.status !== 'passed') console.log(`${test.title}: ${result.error?.message ?? result.status}`)
  }
}
