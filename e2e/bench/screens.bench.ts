import type { Page } from '@playwright/test'
import { demoReview, test } from '../tests/tamiz'

/** A row of the table: what was measured, against what, the ratio with both figures, the goal. */
function row(what: string, against: string, got: number, base: number, goal: string) {
  test.info().annotations.push({ type: 'speed', description: `| ${what} | ${against} | ${(got / base).toFixed(2)} (${got.toFixed(1)}ms : ${base.toFixed(1)}ms) | ${goal} |` })
}
const at = (list: number[], part: number) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * part))]!

/** How long frames take in a page that stands still: the least that a frame can take here. */
const still = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((done) => {
        const times: number[] = []
        let last = performance.now()
        const frame = (now: number) => {
          times.push(now - last)
          last = now
          if (times.length < 90) requestAnimationFrame(frame)
          else done(times.slice(10).sort((a, b) => a - b)[40]!)
        }
        requestAnimationFrame(frame)
      }),
  )

/** From a key press to the frame in which what has the focus points at another row; the median and the 95th of a hundred. */
async function keys(page: Page, key: string, times: number) {
  await page.evaluate(() => {
    const w = window as unknown as { took: number[] }
    w.took = []
    const here = () => document.activeElement?.getAttribute('aria-activedescendant') ?? document.activeElement?.id ?? document.activeElement?.textContent
    addEventListener(
      'keydown',
      () => {
        const from = performance.now()
        const was = here()
        const look = () => {
          if (here() === was && performance.now() - from < 2000) return requestAnimationFrame(look)
          requestAnimationFrame(() => w.took.push(performance.now() - from))
        }
        requestAnimationFrame(look)
      },
      true,
    )
  })
  for (let i = 1; i <= times; i++) {
    await page.keyboard.press(key)
    await page.waitForFunction((n) => (window as unknown as { took: number[] }).took.length >= n, i, { timeout: 5000 })
  }
  return page.evaluate(() => (window as unknown as { took: number[] }).took)
}

/** From a click to the frame in which something is there. */
async function painted(page: Page, click: () => Promise<void>, selector: string, least = 1) {
  await page.evaluate(
    ([s, n]) => {
      const w = window as unknown as { painted: Promise<number> }
      let from = 0
      addEventListener('click', () => (from ||= performance.now()), { capture: true, once: true })
      w.painted = new Promise((done) => {
        const look = () => {
          if (from && document.querySelectorAll(s).length >= n) return requestAnimationFrame(() => done(performance.now() - from))
          requestAnimationFrame(look)
        }
        look()
      })
    },
    [selector, least] as const,
  )
  await click()
  return page.evaluate(() => (window as unknown as { painted: Promise<number> }).painted)
}

test('harvest', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/harvest`)
  await page.getByRole('option').first().waitFor() // the sample is read and counted
  await page.getByRole('link', { name: 'Question' }).click()
  const frame = await still(page)
  row('first paint of Harvest after a click, 13,000 items', 'one frame', await painted(page, () => page.getByRole('link', { name: 'Harvest' }).click(), '[role=option]'), frame, 'printed')
  await page.getByRole('listbox').first().focus()
  const took = await keys(page, 'ArrowDown', 100)
  row('from a key press to the next row painted, median', 'two frames', at(took, 0.5), 2 * frame, 'printed')
  row('the same, 95th percentile', 'the same', at(took, 0.95), 2 * frame, 'printed')
})
