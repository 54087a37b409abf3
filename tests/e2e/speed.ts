import { test } from '@playwright/test'
import { DEMO_NOW } from './filled'
import { pages } from './pages'
import { startServer } from './server'
import { comeInAs } from './visit'

// How long each page takes from the tap to its frame and to its whole content, on the demo, the first time it is opened. Only said, never asserted:
//   FOBBLE_SPEED=1 npx playwright test
const QUIET = 700

test('from a tap to a page', async ({ page }) => {
  test.setTimeout(900_000)
  const server = await startServer({ demo: true, now: DEMO_NOW })
  await comeInAs(page, server, 'Ines Okonjo')
  const took: { address: string; frame: number; content: number; code: number; asked: number }[] = []
  for (const address of pages) {
    await page.goto(`${server.url}/c/1/${address === 'mats' ? 'sheets' : 'mats'}`)
    await page.waitForTimeout(QUIET)
    const times = await page.evaluate(
      ({ to, quiet }) =>
        new Promise<{ frame: number; content: number; code: number; asked: number }>((done) => {
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
            const code = Math.round(
              Math.max(start, ...loaded.filter((r) => /\.(js|css)$/.test(r.name)).map((r) => r.responseEnd)) - start,
            )
            done({ frame: Math.round(frame - start), content: Math.round(last - start), code, asked })
          }, 50)
        }),
      { to: `/c/1/${address}`, quiet: QUIET },
    )
    took.push({ address, ...times })
  }
  await server.stop()
  took.sort((a, b) => b.content - a.content)
  for (const { address, frame, content, code, asked } of took)
    console.log(
      `${address.padEnd(26)} frame ${frame} ms, content ${content} ms (code there at ${code} ms, the last answer at ${asked} ms)`,
    )
  const middle = took[Math.floor(took.length / 2)]!.content
  console.log(
    `Content: half of ${took.length} pages within ${middle} ms; ${took.filter((p) => p.content > 300).length} take more than 300 ms.`,
  )
})
