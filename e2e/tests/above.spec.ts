import { readFile } from 'node:fs/promises'
import { gzipSync } from 'node:zlib'
import type { Page } from '@playwright/test'
import { accessible, bring, demoReview, expect, ris, saved, test } from './tamiz'

test.use({ own: 'above' })

/** What the demo review looks at when it is new. */
async function fresh(page: Page): Promise<number> {
  const id = await demoReview(page)
  const review = await (await page.request.get(`/api/reviews/${id}`)).json()
  await page.request.post(`/api/reviews/${id}/looks`, { data: { source: review.look.source, sample: review.look.sample, against: review.look.against, rest: review.look.rest } })
  return id
}

const list = (page: Page) => page.getByRole('listbox', { name: 'Open candidates' })

/** A sample of words that stand in different records, so that none folds into another. */
const people = ['cutters', 'pickers', 'weeders', 'sowers', 'haulers', 'packers', 'threshers', 'gleaners', 'mowers', 'binders', 'carters', 'drovers', 'milkers', 'shearers', 'tillers', 'weavers', 'tanners', 'fellers', 'rakers', 'dyers', 'grafters', 'pruners']
const things = ['shade', 'water', 'rests', 'hats', 'fans', 'vests', 'salts', 'tents', 'siestas', 'ice', 'melons', 'gloves', 'boots', 'clocks', 'whistles', 'tables', 'benches', 'basins', 'ladders', 'baskets']
const mixed = ris(...Array.from({ length: 132 }, (_, i) => ({ title: `${people[i % 22]}, ${things[(i * 7 + Math.floor(i / 22)) % 20]}, ${people[(i * 4 + 3 + Math.floor(i / 22)) % 22]}` })))

/** A review with two concepts and a sample, ready to be harvested. */
async function ready(page: Page, path: (screen: string) => string) {
  await page.goto(path('question'))
  for (const n of [1, 2]) {
    await page.getByRole('button', { name: 'Add a concept' }).click()
    await expect(page.getByRole('textbox', { name: /concept/i }).nth(n - 1)).toBeVisible()
  }
  await saved(page)
  await page.goto(path('samples'))
  await bring(page, 'mixed.ris', mixed)
  await expect(page.getByRole('button', { name: '132', exact: true })).toBeVisible()
  await page.goto(path('harvest'))
  await expect(list(page).getByRole('option').first()).toBeVisible()
}

/** What was decided in a review, whatever its terms are numbered. */
async function decided(page: Page, id: number) {
  const r = await (await page.request.get(`/api/reviews/${id}`)).json()
  return {
    blocks: r.document.blocks.map((b: { name: string; terms: { text: string }[] }) => [b.name, b.terms.map((t) => t.text)]),
    decisions: r.decisions.map((d: { item: string; state: string; reason: string }) => [d.item, d.state, d.reason]),
  }
}

test('what is decided on by the keyboard alone is what a mouse would have decided', async ({ page, request }) => {
  const done = []
  for (const how of ['keyboard', 'mouse']) {
    const { id } = await (await request.post('/api/reviews', { data: { name: `By ${how}` } })).json()
    await ready(page, (screen) => `/reviews/${id}/${screen}`)
    const selected = list(page).getByRole('option', { selected: true })
    for (let i = 0; i < 40; i++) {
      const before = await selected.locator('.item').textContent()
      if (how === 'keyboard') for (const key of [['p'], ['d', '2'], ['1'], ['2']][i % 4]) await page.keyboard.press(key)
      else if (i % 4 === 0) await page.getByRole('button', { name: 'Park', exact: true }).click()
      else if (i % 4 === 1) {
        await page.getByRole('button', { name: 'Drop…' }).click()
        await page.getByText('too broad').click()
      } else await page.getByRole('button', { name: i % 4 === 2 ? 'Add to A' : 'Add to B' }).click()
      await expect(selected.locator('.item')).not.toHaveText(before!)
    }
    await saved(page)
    done.push(await decided(page, id))
  }
  expect(done[0].decisions.length).toBe(20)
  expect(done[0]).toEqual(done[1])
})

test('what is pressed does not move away when more is known of an item', async ({ page }) => {
  const id = await fresh(page)
  let known = () => {}
  const held = new Promise<void>((go) => (known = go))
  for (const late of ['**/suits?**', '**/item?**']) await page.route(late, (route) => held.then(() => route.continue()))
  await page.goto(`/reviews/${id}/harvest`)
  const panel = page.getByRole('region', { name: /^Selected/ })
  // Of block A: what is proposed for another before anything is known of it.
  await list(page).getByRole('option', { name: /^cooling \d/ }).click()
  const into = panel.getByRole('button', { name: /^Add to/ })
  await expect(into).toHaveText(['Add to A', 'B', 'C'])
  const places = () => panel.getByRole('button', { name: /^Add to|^Park$|^Drop…$|^New concept/ }).evaluateAll((all) => all.map((b) => b.getBoundingClientRect()).map((r) => [r.x, r.y, r.width]))
  const before = await places()
  expect(before.length).toBe(6)
  known()
  await expect(into).toHaveText(['A', 'Add to B', 'C'])
  await expect(panel.getByRole('heading', { name: 'In context' })).toBeVisible()
  expect(await places()).toEqual(before)
})

test('several candidates are decided on at once, and taken back at once', async ({ page, review }) => {
  await ready(page, review.path)
  await list(page).focus()
  for (const key of ['Home', 'Shift+ArrowDown', 'Shift+ArrowDown']) await page.keyboard.press(key)
  await expect(page.getByRole('status').getByText('3 items selected')).toBeVisible()
  await accessible(page)
  await page.keyboard.press('p')
  await expect(page.getByText(/3 parked/)).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText(/0 parked/)).toBeVisible()
  // A reason in own words.
  await list(page).focus()
  await page.keyboard.press('d')
  await page.getByRole('textbox', { name: 'The reason in own words' }).fill('a kind of hat')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/1 dropped/)).toBeVisible()
  await page.getByRole('button', { name: 'dropped', exact: true }).click()
  await expect(page.getByText('a kind of hat')).toBeVisible()
})

test('each facet opens, shows what a limit would cost, and leads to its records', async ({ page }) => {
  const id = await fresh(page)
  await page.goto(`/reviews/${id}/harvest`)
  await page.getByRole('tab', { name: /Years/ }).click()
  const handle = page.getByRole('slider', { name: 'First year that is kept' })
  await handle.focus()
  for (let i = 0; i < 14; i++) await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('heading', { name: /A limit from \d{4} on would lose/ })).toBeVisible()
  await expect(page.getByText(/\d+ of [\d,]+ records looked at/)).toBeVisible()
  await expect(page.getByText('At Almagre')).toBeVisible()
  await accessible(page)
  // What would be lost is there to be read.
  const lost = page.getByRole('button', { name: /\d+ of [\d,]+ records looked at/ })
  const many = /^\d+/.exec((await lost.textContent())!)![0]
  await lost.click()
  await expect(page.getByRole('dialog', { name: /would lose/ }).getByText(`1 of ${many}`)).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('row', { name: /^2019/ }).getByRole('button').first().click()
  await expect(page.getByRole('article', { name: 'The record' })).toBeVisible()
  await page.keyboard.press('Escape')
  const svg = page.waitForEvent('download')
  await page.getByRole('button', { name: 'SVG' }).click()
  const drawn = await readFile(await (await svg).path(), 'utf8')
  expect(drawn).toContain('<svg')
  expect(drawn).not.toContain('var(')

  for (const facet of ['Types', 'Languages', 'Countries', 'Ages', 'Humans']) {
    await page.getByRole('tab', { name: new RegExp(facet) }).click()
    const second = page.locator('tbody').first().getByRole('row').nth(1)
    await second.getByRole('rowheader').getByRole('button').click()
    await expect(page.getByRole('heading', { name: /would lose/ })).toBeVisible()
    await accessible(page)
    await second.getByRole('cell').first().getByRole('button').click()
    await expect(page.getByRole('article', { name: 'The record' })).toBeVisible()
    await page.keyboard.press('Escape')
  }
  await page.getByRole('tab', { name: /Types/ }).click()
  const trial = page.getByRole('row', { name: /^trial \d+ \d+ \d+ \d+/ })
  const titled = (await trial.getByRole('button').nth(1).textContent())!
  await trial.getByRole('button').nth(1).click()
  await expect(page.getByRole('dialog', { name: 'trial by title' }).getByText(`1 of ${titled}`)).toBeVisible()
  await page.keyboard.press('Escape')
})

test('journals are put on the hand-search list, with a note, and taken out as CSV', async ({ page }) => {
  const id = await fresh(page)
  await page.goto(`/reviews/${id}/harvest`)
  await page.getByRole('tab', { name: /Journals/ }).click()
  await expect(page.getByText(/Half of these records stand in the first \d+ journals/)).toBeVisible()
  const put = page.getByRole('button', { name: /Put .* on the hand-search list/ }).first()
  const journal = /Put (.*) on the hand-search list/.exec((await put.getAttribute('aria-label'))!)![1]
  await put.click()
  const aside = page.getByRole('complementary', { name: 'Hand-search list' })
  const note = aside.getByRole('textbox', { name: `Note on ${journal}` })
  await note.fill('from 2019, "all" issues')
  await note.blur()
  await saved(page)
  await accessible(page)
  await page.reload()
  await expect(note).toHaveValue('from 2019, "all" issues')
  const file = page.waitForEvent('download')
  await aside.getByRole('button', { name: 'CSV' }).click()
  const csv = await readFile(await (await file).path(), 'utf8')
  expect(csv).toContain('journal,records,key_studies,unindexed,note')
  expect(csv).toContain('"from 2019, ""all"" issues"')
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(note).toHaveCount(0)

  await page.getByRole('tab', { name: /Authors/ }).click()
  await page.getByRole('button', { name: 'Teams', exact: true }).click()
  const teams = page.getByRole('region', { name: 'Teams' })
  const signed = teams.getByRole('button', { name: /^\d+ records$/ }).first()
  const together = /\d+/.exec((await signed.textContent())!)![0]
  await signed.click()
  await expect(page.getByRole('dialog', { name: /the team of/ }).getByText(`1 of ${together}`)).toBeVisible()
  await page.keyboard.press('Escape')
  await accessible(page)
  await teams.getByRole('button', { name: 'Look at its records from above' }).first().click()
  await expect(page.getByRole('button', { name: /What is looked at: the team of/ })).toBeVisible()
  await expect(list(page).getByRole('option').first()).toBeVisible()
  await page.getByRole('button', { name: 'The sample again' }).click()
})

test('what the blocks find is looked at from above, and ordered anew', async ({ page }) => {
  const id = await fresh(page)
  await page.goto(`/reviews/${id}/harvest`)
  await page.getByRole('tab', { name: /Words/ }).click()
  await page.getByRole('button', { name: /What is looked at/ }).click()
  await page.getByRole('listitem').or(page.getByRole('option')).or(page.locator('.v-list-item')).filter({ hasText: 'what the blocks find now' }).first().click()
  await expect(page.getByRole('button', { name: 'What is looked at: what the blocks find now' })).toBeVisible()
  await expect(page.getByRole('button', { name: /^[\d,]+ aside$/ })).toBeVisible()
  const selected = list(page).getByRole('option', { selected: true })
  // The block that it suits is taken with one key.
  await list(page).focus()
  await page.keyboard.press('Home')
  await expect(selected.locator('.suit')).toBeVisible()
  const first = await selected.locator('.item').textContent()
  await page.keyboard.press(' ')
  await expect(selected.locator('.item')).not.toHaveText(first!)
  await saved(page)
  const before = await page.getByRole('button', { name: /What is looked at/ }).textContent()
  await Promise.all([page.waitForResponse((r) => r.url().includes('/tally') && r.ok()), page.keyboard.press('o')])
  await expect(page.getByRole('button', { name: /What is looked at/ })).not.toHaveText(before!)
  await expect(list(page).getByRole('option').first()).toBeVisible()
  // Words used alike: one of them is gone to.
  await list(page).focus()
  await page.keyboard.press('a')
  const alike = page.getByRole('region', { name: 'Used alike' })
  await expect(alike.getByRole('listitem').nth(5)).toBeVisible()
  await accessible(page)
  const word = (await alike.getByRole('listitem').nth(2).locator('.mono').textContent())!
  await alike.getByRole('listitem').nth(2).getByRole('button').click()
  // It may be one of a family, which is shown under another of its words.
  await expect(page.getByRole('region', { name: /^Selected/ })).toContainText(word)
  // From the records of a year back to Harvest.
  await page.getByRole('tab', { name: /Years/ }).click()
  await page.getByRole('row', { name: /^2018/ }).getByRole('button').first().click()
  await page.getByRole('button', { name: 'Look at these from above' }).click()
  await expect(page.getByRole('button', { name: 'What is looked at: 2018 (Years)' })).toBeVisible()
  await page.getByRole('button', { name: 'The sample again' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await saved(page)
})

test('filters of every kind, and those that cannot be', async ({ page }) => {
  const id = await fresh(page)
  await page.goto(`/reviews/${id}/harvest`)
  await page.getByRole('tab', { name: /Words/ }).click()
  const filter = page.getByLabel('Filter', { exact: true })
  await filter.fill('cane cutt*')
  await expect(list(page).getByRole('option', { name: /cane cutters/ }).first()).toBeVisible()
  await filter.fill('*')
  await expect(page.getByRole('alert')).toContainText('A pattern needs two letters')
  await expect(page.getByText('Nothing fits the filter.')).toBeVisible()
  await filter.fill('')
  await page.getByRole('button', { name: 'More filters' }).click()
  await page.getByRole('textbox', { name: 'Records from' }).fill('300')
  await page.getByRole('textbox', { name: 'Records from' }).blur()
  await page.getByRole('checkbox', { name: 'in missed key studies' }).check()
  await accessible(page)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: '2 filters' })).toBeVisible()
  const figures = await list(page).getByRole('option').evaluateAll((rows) => rows.map((r) => Number(r.querySelector('b')!.textContent!.replace(',', ''))))
  expect(figures.length).toBeGreaterThan(0)
  expect(Math.min(...figures)).toBeGreaterThanOrEqual(300)
})

test('tallies and candidates leave as files, and decisions come back', async ({ page, review }) => {
  await ready(page, review.path)
  await list(page).focus()
  for (const key of ['p', '1', 'd', '1']) await page.keyboard.press(key)
  await saved(page)
  const take = async (item: string) => {
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    const file = page.waitForEvent('download')
    await page.getByText(item, { exact: true }).click()
    const download = await file
    return { name: download.suggestedFilename(), bytes: await readFile(await download.path()) }
  }
  const csv = await take('This tally as CSV')
  expect(csv.name).toMatch(/words\.csv$/)
  const shown = Number(/(\d+) open/.exec((await page.locator('.counts').textContent())!)![1]) + 3
  expect(csv.bytes.toString().trim().split('\n').length).toBe(shown + 1)
  const xlsx = await take('This tally as XLSX')
  expect(xlsx.bytes.subarray(0, 2).toString()).toBe('PK')
  const plot = await take('The plot as PNG')
  expect(plot.bytes.subarray(1, 4).toString()).toBe('PNG')
  const candidates = (await take('Candidates with what is decided, as CSV')).bytes.toString()
  expect(candidates.trim().split('\r\n').length).toBe(4)
  const before = await decided(page, review.id)

  // Into another review, with a line that says nothing that can be done.
  const { id } = await (await page.request.post('/api/reviews', { data: { name: 'Decided elsewhere' } })).json()
  await ready(page, (screen) => `/reviews/${id}/${screen}`)
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByText('Bring decisions in from CSV…').click()
  await (await chooser).setFiles({ name: 'candidates.csv', mimeType: 'text/csv', buffer: Buffer.from(`${candidates}words,hats,praised,,,\r\n`) })
  await expect(page.getByText(/3 decisions brought in. 1 line was passed over: 5/)).toBeVisible()
  await saved(page)
  expect(await decided(page, id)).toEqual(before)
})

test('anything is found by its name', async ({ page }) => {
  const id = await fresh(page)
  await page.goto(`/reviews/${id}/question`)
  await expect(page.getByRole('button', { name: /Find anything/ })).toBeVisible()
  await page.keyboard.press('Control+k')
  const field = page.getByRole('combobox', { name: /Find a term/ })
  await field.fill('hydration')
  const found = page.getByRole('listbox', { name: 'Find anything' })
  await expect(found.getByRole('option', { name: /in block B/ })).toBeVisible()
  await expect(found.getByRole('option', { name: /Fluid Intake/ })).toBeVisible()
  await accessible(page)
  await field.fill('covera')
  await expect(found.getByRole('option').first()).toContainText('Coverage')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/coverage/)
  await page.keyboard.press('Control+k')
  await field.fill('fluid int')
  await found.getByRole('option', { name: /Headings Fluid Intake/ }).click()
  await expect(page.getByRole('article', { name: 'Fluid Intake' })).toBeVisible()
  await page.goto(`/reviews/${id}/harvest?facet=headings&item=Fluid+Intake`)
  await expect(page.getByRole('tab', { name: /Headings/, selected: true })).toBeVisible()
  await expect(page.getByRole('region', { name: /Selected: Fluid Intake/ })).toBeVisible()
  // As a tree.
  await page.getByRole('button', { name: 'As a tree' }).click()
  await expect(page.getByRole('treeitem', { selected: true }).first()).toContainText('Fluid Intake')
  await expect(page.getByText(/spread over \d+/).first()).toBeVisible()
  await accessible(page)
  await page.getByRole('button', { name: 'As a list' }).click()
})

test('samples of a kind that words, years or headings fail for', async ({ page, review }) => {
  const odd = Buffer.from([
    'TY  - JOUR', 'AN  - 1', 'TI  - 熱中症 の 予防 と 農業 の 人々', 'LA  - jpn', 'ER  - ', '', 'TY  - JOUR', 'AN  - 2', 'TI  - 熱中症 の 予防 の 方法 と', 'LA  - jpn', 'ER  - ', '',
    'TY  - JOUR', 'AN  - 3', 'TI  - Salud de los jornaleros y el calor', 'LA  - spa', 'ER  - ', '', 'TY  - JOUR', 'AN  - 4', `TI  - ${'jornaleros '.repeat(3)}${'x'.repeat(300)}`, 'LA  - spa', 'ER  - ', '', 'TY  - JOUR', 'AN  - 5', `TI  - ${'x'.repeat(300)}`, 'ER  - ', '',
  ].join('\r\n'))
  await page.goto(review.path('samples'))
  await bring(page, 'odd.ris', odd)
  await expect(page.getByRole('button', { name: '5', exact: true })).toBeVisible()
  await page.goto(review.path('harvest'))
  await page.getByRole('tab', { name: /Words/ }).click()
  await expect(list(page).getByRole('option', { name: /熱 中 症/ }).first()).toBeVisible()
  await expect(page.getByText(/do not read like English/)).toBeVisible()
  await expect(list(page).getByRole('option', { name: /x{300}/ })).toBeVisible()
  await page.getByRole('tab', { name: /Years/ }).click()
  await expect(page.getByText('No record says its year.')).toBeVisible()
  await page.getByRole('tab', { name: /Languages/ }).click()
  await expect(page.getByRole('row', { name: /not said/ })).toContainText('1')
  await page.getByRole('tab', { name: /Headings/ }).click()
  await expect(page.getByText('The sample holds none of these.')).toBeVisible()
  await page.getByRole('tab', { name: /Journals/ }).click()
  await expect(page.getByText('No journal yet')).toBeVisible()
  await accessible(page)
})

test('the first screen is light, and charts come when they are looked at', async ({ page }) => {
  const sizes: Record<string, number> = {}
  page.on('response', async (r) => {
    if (/\.(js|css)$/.test(new URL(r.url()).pathname)) sizes[new URL(r.url()).pathname] = gzipSync(await r.body().catch(() => Buffer.alloc(0))).length
  })
  const id = await fresh(page)
  await page.goto(`/reviews/${id}/question`)
  await page.waitForLoadState('networkidle')
  const all = Object.values(sizes).reduce((a, b) => a + b, 0)
  console.log(`first screen: ${Math.round(all / 1000)} kB of JavaScript and CSS, gzipped`)
  expect(all).toBeLessThan(350_000)
  expect(Object.keys(sizes).some((name) => /CandidatePlot|YearsView/.test(name))).toBe(false)
})

test('what a key press, scrolling and the first paint take is printed', async ({ page }) => {
  const id = await fresh(page)
  await page.goto(`/reviews/${id}/harvest`)
  await page.getByRole('tab', { name: /Words/ }).click()
  await expect(list(page).getByRole('option').first()).toBeVisible()
  await page.getByRole('link', { name: /^Coverage/ }).click()
  await expect(page).toHaveURL(/coverage/)
  const paint = await page.evaluate(async () => {
    const began = performance.now()
    ;[...document.querySelectorAll<HTMLElement>('nav a')].find((a) => a.textContent?.includes('Harvest'))!.click()
    const frame = () => new Promise((done) => requestAnimationFrame(done))
    while (!document.querySelector('[role=listbox] [role=option]')) await frame()
    await frame()
    return performance.now() - began
  })
  await list(page).focus()
  await page.evaluate(() => {
    const taken: number[] = []
    Object.assign(window, { taken })
    document.addEventListener('keydown', () => {
      const began = performance.now()
      requestAnimationFrame(() => requestAnimationFrame(() => taken.push(performance.now() - began)))
    }, true)
  })
  for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowDown')
  await expect.poll(() => page.evaluate(() => (window as unknown as { taken: number[] }).taken.length)).toBe(30)
  const keys = await page.evaluate(() => (window as unknown as { taken: number[] }).taken.sort((a, b) => a - b)[15])
  const frames = await page.evaluate(async () => {
    const at = document.querySelector('[role=listbox]')!
    const gaps: number[] = []
    let before = await new Promise<number>((done) => requestAnimationFrame(done))
    for (let i = 0; i < 120; i++) {
      at.scrollTop += 1500
      const now = await new Promise<number>((done) => requestAnimationFrame(done))
      gaps.push(now - before)
      before = now
    }
    return { longest: Math.max(...gaps), slow: gaps.filter((g) => g > 50).length }
  })
  console.log(`Harvest: first paint ${paint.toFixed(0)} ms after a click; key to next row ${keys.toFixed(0)} ms in the median of 30; scrolling 120 frames over ${await page.getByText(/^[\d,]+ (items|of [\d,]+)$/).textContent()}: longest ${frames.longest.toFixed(0)} ms, ${frames.slow} over 50 ms`)
  expect(keys).toBeGreaterThan(0)
})

test('words used like the terms of a block, or like one of them, lead to Harvest', async ({ page }) => {
  const id = await fresh(page)
  await page.goto(`/reviews/${id}/blocks`)
  await page.getByRole('button', { name: 'Used alike' }).click()
  const alike = page.getByRole('region', { name: 'Used alike' })
  await expect(alike.getByRole('listitem').nth(8)).toBeVisible()
  await page.getByRole('combobox', { name: 'Like which term' }).selectOption('farmworker*')
  await expect(alike.getByText('They keep the company that farmworker* keeps')).toBeVisible()
  const word = (await alike.getByRole('listitem').first().locator('.mono').textContent())!
  await accessible(page)
  await alike.getByRole('listitem').first().getByRole('button').click()
  // It may be one of a family, which is shown under another of its words.
  await expect(page.getByRole('region', { name: /^Selected/ })).toContainText(word)
})
