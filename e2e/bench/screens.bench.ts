import type { Page } from '@playwright/test'
import { demoReview, expect, test } from '../tests/tamiz'

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

test('headings', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/headings`)
  await page.getByRole('option').nth(5).waitFor() // its figures are there
  await page.getByRole('link', { name: 'Question' }).click()
  const frame = await still(page)
  row('first paint of Headings after a click', 'one frame', await painted(page, () => page.getByRole('link', { name: 'Headings' }).click(), '[role=option]'), frame, 'printed')
  await page.getByRole('listbox').first().focus()
  const took = await keys(page, 'ArrowDown', 8)
  row('from a key press to the next heading painted, median of 8', 'two frames', at(took, 0.5), 2 * frame, 'printed')
})

test('who cites whom', async ({ page, request }) => {
  const id = await demoReview(page)
  const sources: { id: number; name: string }[] = await (await request.get('/api/sources')).json()
  const vilano = sources.find((s) => s.name === 'Vilano')!.id
  expect((await request.post(`/api/reviews/${id}/rounds`, { data: { way: 'both', from: 'keys', twice: true, sources: [vilano] } })).ok()).toBe(true)
  await expect
    .poll(async () => ((await (await request.get(`/api/reviews/${id}/rounds`)).json()) as { state: string }[]).map((r) => r.state).join(), { timeout: 300_000 })
    .toBe('done,done,done')
  await page.goto(`/reviews/${id}/studies`)
  await page.getByRole('option').first().waitFor()
  const frame = await still(page)
  // What is asked of the server is asked beforehand: the drawing is measured.
  await page.getByRole('tab', { name: 'Who cites whom' }).click()
  const picture = page.getByRole('img', { name: /works over the years/ })
  await picture.waitFor()
  const works = await picture.locator('circle').count()
  await page.getByRole('tab', { name: 'Find more' }).click()
  const drawn = await painted(page, () => page.getByRole('tab', { name: 'Who cites whom' }).click(), '[role=img] circle', works)
  row(`who cites whom of ${works} works drawn after a click`, 'one frame', drawn, frame, '≤ 200 ms')
  const box = (await picture.boundingBox())!
  await page.evaluate(() => {
    const w = window as unknown as { frames: number[]; going: boolean }
    w.frames = []
    w.going = true
    let last = performance.now()
    const next = (now: number) => {
      w.frames.push(now - last)
      last = now
      if (w.going) requestAnimationFrame(next)
    }
    requestAnimationFrame(next)
  })
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  for (let i = 0; i < 150; i++) await page.mouse.move(box.x + box.width / 2 + 120 * Math.sin(i / 9), box.y + box.height / 2 + 50 * Math.cos(i / 7))
  await page.mouse.up()
  const frames = await page.evaluate(() => {
    const w = window as unknown as { frames: number[]; going: boolean }
    w.going = false
    return w.frames.slice(5)
  })
  row('the same dragged, a frame in the median (drawn in software)', 'a frame of a page that stands still', at(frames, 0.5), frame, 'printed')
  row('the same, 95th percentile', 'the same', at(frames, 0.95), frame, 'printed')
})
