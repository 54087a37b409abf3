import { test } from '@playwright/test'
import { DEMO_NOW } from './filled'
import { pages } from './pages'
import { startServer } from './server'
import { comeInAs } from './visit'

// How long each page takes from the tap to its frame and to its whole content, on the demo, the first time it is opened. Only said, never asserted:
//   FOBBLE_SPEED=1 npx playwright test
const QUIET = 700

interface Times {
  frame: number
  content: number
  asked: number
}

test('from a tap to a page', async ({ page }) => {
  test.setTimeout(1_800_000)
  const server = await startServer({ demo: true, now: DEMO_NOW })
  await comeInAs(page, server, 'Ines Okonjo')
  // Once on a server that has answered nothing yet, and once on one that has.
  const took = new Map<string, Times[]>()
  for (const address of [...pages, ...pages]) {
    await page.goto(`${server.url}/c/1/${address === 'mats' ? 'sheets' : 'mats'}`)
    await page.waitForTimeout(QUIET)
    const times = await page.evaluate(
      ({ to, quiet }) =>
        new Promise<Times>((done) => {
          const router = (document.querySelector('#app') as unknown as { __vue_app__: { config: { globalProperties: { $router: { push(to: string): void } } } } })
            .__vue_app__.config.globalProperties.$router // prettier-ignore
          const was = document.querySelector('h1')?.textContent
          performance.clearResourceTimings()
          const start = performance.now()
          let [frame, last] = [0, start]
          new MutationObserver(() => {
            last = performance.now()
            const now = document.querySelector('h1')
            if (!frame && now && now.textContent !== was) frame = last
          }).observe(document.body, { childList: true, subtree: true, characterData: true, attributes: true })
          router.push(to)
          const timer = setInterval(() => {
            if (performance.now() - last < quiet && performance.now() - start < 8000) return
            clearInterval(timer)
            const loaded = performance.getEntriesByType('resource') as PerformanceResourceTiming[]
            const asked = Math.round(
              Math.max(start, ...loaded.filter((r) => r.name.includes('/api/')).map((r) => r.responseEnd)) - start,
            )
            done({ frame: Math.round(frame - start), content: Math.round(last - start), asked })
          }, 50)
        }),
      { to: `/c/1/${address}`, quiet: QUIET },
    )
    took.set(address, [...(took.get(address) ?? []), times])
  }
  await server.stop()
  const second = [...took].sort(([, a], [, b]) => b[1]!.content - a[1]!.content)
  for (const [address, [first, then]] of second)
    console.log(
      `${address.padEnd(26)} frame ${then!.frame} ms, last answer ${then!.asked} ms, content ${then!.content} ms (at first ${first!.content} ms)`,
    )
  for (const [round, name] of ['a server just begun', 'a server that has answered before'].entries()) {
    const contents = second.map(([, times]) => times[round]!.content).sort((a, b) => a - b)
    console.log(
      `${name}: half of ${contents.length} pages within ${contents[Math.floor(contents.length / 2)]} ms; ${contents.filter((ms) => ms > 300).length} take more than 300 ms.`,
    )
  }
})
