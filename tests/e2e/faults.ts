import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter'
import { readFileSync } from 'node:fs'

/** What stood on the page when a test failed goes into the log: where only that is kept, as after a run on another machine, it is all there is to understand it by. */
export default class Faults implements Reporter {
  onTestEnd(test: TestCase, result: TestResult) {
    if (result.status === test.expectedStatus) return
    for (const { name, path } of result.attachments) {
      if (name !== 'error-context' || !path) continue
      const page = /```yaml\n([\s\S]*?)```/.exec(readFileSync(path, 'utf8'))?.[1]
      if (page) console.log(`\n== ${test.title}: the page as it was\n${page}`)
    }
  }
}
