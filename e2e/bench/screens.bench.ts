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
  row('first paint of Harvest after a click, 18,000 items of which 10,000 are sent', 'one frame', await painted(page, () => page.getByRole('link', { name: 'Harvest' }).click(), '[role=option]'), frame, 'printed')
  await page.getByRole('listbox').first().focus()
  const took = await keys(page, 'ArrowDown', 100)
  row('from a key press to the next row painted, median', 'two frames', at(took, 0.5), 2 * frame, 'printed')
  row('the same, 95th percentile', 'the same', at(took, 0.95), 2 * frame, 'printed')
})

test('headings', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/headings`)
  await page.locator('.leads li').first().waitFor() // the sample is read and counted
  await page.getByRole('link', { name: 'Question' }).click()
  const frame = await still(page)
  row('first paint of Headings after a click: what the sample and the key studies point to', 'one frame', await painted(page, () => page.getByRole('link', { name: 'Headings', exact: true }).click(), '.leads li'), frame, 'printed')
  const lead = page.locator('.leads').getByRole('button', { name: 'People', exact: true })
  row('one heading, whole, after a click', 'one frame', await painted(page, () => lead.click(), 'article.panel li.own'), frame, 'printed')
  await page.getByRole('tree').focus()
  const took = [...(await keys(page, 'ArrowDown', 8)), ...(await keys(page, 'ArrowUp', 8))]
  row('from a key press to the next node of its tree painted, median', 'two frames', at(took, 0.5), 2 * frame, 'printed')
})

/** What goes to the program and comes back, of everything but the program's own files, until nothing more does. */
test('bytes of a decision', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/harvest`)
  await page.getByRole('option').nth(12).waitFor()
  await page.getByRole('listbox').first().focus()
  await page.waitForLoadState('networkidle').catch(() => undefined)
  const calls: { url: string; sent: number; got: number }[] = []
  page.on('requestfinished', async (r) => {
    const s = await r.sizes().catch(() => undefined)
    if (s) calls.push({ url: r.url(), sent: s.requestBodySize + s.requestHeadersSize, got: s.responseBodySize + s.responseHeadersSize })
  })
  const times = 10
  for (let i = 0; i < times; i++) {
    await page.keyboard.press('p')
    await page.getByText(/^Saved/).waitFor()
  }
  await page.getByText(/^Saved/).waitFor()
  const sum = (of: typeof calls, way: 'sent' | 'got') => of.reduce((n, c) => n + c[way], 0) / times
  const changes = calls.filter((c) => /\/changes?(\?|$)/.test(c.url))
  test.info().annotations.push({
    type: 'speed',
    description: `| bytes of one decision: sent, received; with all that is asked after it | 4 kB each way | ${(sum(changes, 'got') / 4096).toFixed(2)} (${sum(changes, 'sent').toFixed(0)}, ${sum(changes, 'got').toFixed(0)} of ${changes.length / times} calls; ${sum(calls, 'sent').toFixed(0)}, ${sum(calls, 'got').toFixed(0)} of ${(calls.length / times).toFixed(1)}) | ≤ 1 |`,
  })
})

/** A network of so many works over forty years: each cites eight earlier ones or fewer, what is cited much still more. */
function network(size: number) {
  let seed = 7
  const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647
  const works = Array.from({ length: size }, (_, i) => ({
    record: { id: i + 1, title: `Work ${i + 1} of the picture`, byline: 'Velkana', year: 1985 + Math.floor((40 * i) / size), journal: 'Journal of Field Medicine', indexed: true, key: i % 17 === 0 },
    caught: i % 3 > 0,
    cited: 0,
    ...(i % 17 === 0 ? { verdict: 'key' } : {}),
  }))
  const links: number[][] = []
  for (let from = 1; from < size; from++) {
    const cites = new Set<number>()
    for (let n = 0; n < Math.min(8, from); n++) cites.add(random() < 0.5 && links.length ? links[Math.floor(random() * links.length)]![1]! : Math.floor(random() * from))
    for (const to of cites) if (to < from) (links.push([from, to]), works[to]!.cited++)
  }
  return { works, links, of: size }
}

test('network', async ({ page }) => {
  const id = await demoReview(page)
  const all = network(500)
  await page.route('**/found/network*', (route) => route.fulfill({ json: all }))
  await page.goto(`/reviews/${id}/studies`)
  const tab = page.getByRole('tab', { name: 'Who cites whom' })
  await tab.waitFor()
  const frame = await still(page)
  row(`picture and table of ${all.works.length} works and ${all.links.length} citations, after a click`, 'one frame', await painted(page, () => tab.click(), '.picture path.dot', 2), frame, '≤ 200 ms')
  // Moved by a step each frame, as dragging does: how long the frames take.
  const moved = await page.evaluate(
    () =>
      new Promise<number[]>((done) => {
        const picture = document.querySelector('.picture')!
        const at = picture.getBoundingClientRect()
        const point = (kind: string, n: number) => picture.dispatchEvent(new PointerEvent(kind, { clientX: at.x + 100 + n, clientY: at.y + 100 + (n % 20), bubbles: true }))
        point('pointerdown', 0)
        const times: number[] = []
        let last = performance.now()
        const step = (now: number) => {
          times.push(now - last)
          last = now
          point('pointermove', times.length)
          if (times.length < 130) return requestAnimationFrame(step)
          point('pointerup', times.length)
          done(times.slice(10))
        }
        requestAnimationFrame(step)
      }),
  )
  row('a frame while that picture is moved, drawn in software, median', 'one frame', at(moved, 0.5), frame, '60 a second: printed')
  row('the same, 95th percentile', 'the same', at(moved, 0.95), frame, 'printed')
})
