import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { test } from '@playwright/test'
import { DEMO_NOW } from './filled'
import { pages } from './pages'
import { startServer } from './server'
import { comeInAs } from './visit'

// How long a page takes on the demo, from the tap to its frame and to its content, in the application as it is open: ./fobble bench pages. Measured, never asserted.
const ROUNDS = 3

test('how long each page takes', async ({ page }) => {
  test.setTimeout(900_000)
  const server = await startServer({ demo: true, now: DEMO_NOW })
  await comeInAs(page, server, 'Ines Okonjo')
  // Once through, as on a day on which the application is in use: its parts are loaded and the server is warm.
  for (const address of pages) await page.goto(`${server.url}/c/1/${address}`, { waitUntil: 'networkidle' })
  const rows: { address: string; frame: number; content: number }[] = []
  for (const address of pages) {
    const rounds: { frame: number; content: number }[] = []
    for (let i = 0; i < ROUNDS; i++) {
      // Another page first, and nothing of this one kept.
      await page.goto(`${server.url}/c/1/${address === 'mats' ? 'jar' : 'mats'}`, { waitUntil: 'networkidle' })
      rounds.push(
        await page.evaluate(async (to) => {
          const main = document.querySelector('main')!
          const shown = main.innerHTML
          const asked = window.fetch
          let underway = 0
          window.fetch = async (...what) => {
            underway++
            try {
              return await asked(...what)
            } finally {
              underway--
            }
          }
          const began = performance.now()
          let changed = began
          new MutationObserver(() => (changed = performance.now())).observe(main, {
            childList: true,
            subtree: true,
            characterData: true,
          })
          const frame = new Promise<number>((told) => {
            const look = () =>
              main.innerHTML !== shown && main.querySelector('h1')?.textContent
                ? told(performance.now() - began)
                : requestAnimationFrame(look)
            look()
          })
          history.pushState({}, '', to)
          dispatchEvent(new PopStateEvent('popstate', { state: {} }))
          const framed = await frame
          // Nothing is asked for any more, and nothing has changed for a while.
          while (underway > 0 || performance.now() - changed < 150) await new Promise((wait) => setTimeout(wait, 10))
          return { frame: framed, content: changed - began }
        }, `/c/1/${address}`),
      )
    }
    const middle = (of: (r: { frame: number; content: number }) => number) =>
      Math.round(rounds.map(of).sort((a, b) => a - b)[Math.floor(ROUNDS / 2)]!)
    rows.push({ address, frame: middle((r) => r.frame), content: middle((r) => r.content) })
  }
  server.stop()
  const day = new Date().toISOString().slice(0, 10)
  const over = rows.filter((r) => r.content > 300).length
  writeFileSync(
    fileURLToPath(new URL('../../bench/PAGES.md', import.meta.url)),
    [
      '# How long each page takes',
      '',
      `From the tap to the page’s frame and to its last change, in headless Chromium on the demo, with server and browser on the same two cores; median of ${ROUNDS}. Measured on ${day}, written by \`./fobble bench pages\`. Aim: content within 300 ms; ${over === 0 ? 'all are' : `${rows.length - over} of ${rows.length} are`}.`,
      '',
      '| page | frame, ms | content, ms |',
      '| --- | --- | --- |',
      ...rows.map((r) => `| ${r.address} | ${r.frame} | ${r.content} |`),
      '',
    ].join('\n'),
  )
})
