import { accessible, bring, demoReview, expect, ris, saved, test } from './tamiz'

test.use({ own: 'figures' })

const skos = (lines: [string, string, string][]) =>
  Buffer.from(lines.map(([s, p, o]) => `<https://v.example/${s}> <http://www.w3.org/2004/02/skos/core#${p}> ${o.startsWith('"') ? `${o}@en` : `<https://v.example/${o}>`} .\n`).join(''))

test('a vocabulary is brought in, leads to headings, and widens them to what stands below', async ({ page, review }) => {
  await page.goto(review.path('question'))
  await page.getByRole('button', { name: 'Add a concept' }).click()
  await saved(page)
  await page.goto(review.path('samples'))
  await bring(page, 'heat.ris', ris(...Array.from({ length: 6 }, (_, i) => ({ title: `Heat ${i}`, keywords: [i < 2 ? 'Heat Illness' : i < 4 ? 'heat stroke' : 'Body Harm', `place ${i}`] }))))
  await expect(page.getByRole('button', { name: '6', exact: true })).toBeVisible()
  const file = page.getByLabel('Drop a SKOS vocabulary here')
  await file.setInputFiles({ name: 'no.nt', mimeType: 'text/plain', buffer: Buffer.from('this is prose\n') })
  await expect(page.getByRole('alert')).toContainText('no SKOS vocabulary')
  await page.getByRole('button', { name: 'Dismiss' }).click()
  await file.setInputFiles({
    name: 'harm.nt', mimeType: 'text/plain',
    buffer: skos([['1', 'prefLabel', '"Body Harm"'], ['2', 'prefLabel', '"Heat Illness"'], ['2', 'altLabel', '"heat stroke"'], ['2', 'broader', '1'], ['2', 'broader', '9']]),
  })
  await expect(page.getByText('2 headings')).toBeVisible()
  await page.getByRole('button', { name: '1 remark' }).click()
  await expect(page.getByText(/names a broader or narrower one that is not there/)).toBeVisible()
  await accessible(page)
  await page.getByRole('button', { name: 'Close' }).click()

  await page.getByRole('link', { name: 'Harvest', exact: true }).click()
  await page.getByRole('tab', { name: /Headings/ }).click()
  await expect(page.getByRole('option', { name: /^Heat Illness 2/ })).toBeVisible()
  await expect(page.getByRole('option', { name: /^Body Harm 2 4/ })).toBeVisible()
  // What authors wrote stays theirs.
  await page.getByRole('tab', { name: /Keywords/ }).click()
  await expect(page.getByRole('option', { name: /^heat stroke= Heat Illness 2/ })).toBeVisible()

  await page.getByRole('link', { name: 'Blocks' }).click()
  await page.getByLabel('Add a term to A').fill('harm')
  await page.getByRole('button', { name: 'Body Harm with its narrower headings' }).click()
  const row = page.getByRole('row', { name: /Body Harm/ })
  await expect(row).toContainText('with 1 narrower')
  await expect(row.getByRole('button', { name: /4 records of Body Harm/ })).toBeVisible()
  await row.getByRole('button', { name: 'Body Harm with its narrower headings' }).click()
  await expect(row.getByRole('button', { name: /2 records of Body Harm/ })).toBeVisible()
  await accessible(page)

  await page.getByRole('link', { name: 'Samples' }).click()
  await page.getByRole('button', { name: 'Remove harm' }).click()
  await expect(page.getByText('Without a vocabulary')).toBeVisible()
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('2 headings')).toBeVisible()
})

test('a block shows what each term adds, and what adds nothing', async ({ page, review }) => {
  await page.goto(review.path('question'))
  await page.getByRole('button', { name: 'Add a concept' }).click()
  await saved(page)
  await page.goto(review.path('samples'))
  await bring(page, 'crews.ris', ris(...Array.from({ length: 10 }, (_, i) => ({ title: i < 7 ? `Farm worker ${i}` : `Farmer ${i}` }))))
  await expect(page.getByRole('button', { name: '10', exact: true })).toBeVisible()
  await page.getByRole('link', { name: 'Blocks' }).click()
  const field = page.getByLabel('Add a term to A')
  // A row may name another term, inside which its own lies: it is known by its switch.
  const row = (term: string) => page.getByRole('row').filter({ has: page.getByRole('switch', { name: `${term} is searched`, exact: true }) })
  for (const term of ['farm worker', 'farm*', 'farm work*']) {
    await field.fill(term)
    await field.press('Enter')
    await expect(row(term)).toBeVisible()
  }
  await saved(page)
  await expect(row('farm work*')).toContainText('adds nothing: inside')
  await expect(page.getByRole('img', { name: 'the block grows to 10, by 3' })).toBeVisible()
  await expect(page.getByText('words alone 10')).toBeVisible()
  await accessible(page)
})

test('the rescue plan is looked at, taken, and undone; halves keep the test half apart', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/coverage`)
  const bench = page.getByRole('complementary', { name: 'Bench' })
  await expect(bench.getByTestId('caught')).toHaveText('18')
  await page.getByRole('button', { name: 'Rescue plan' }).click()
  const plan = page.getByRole('region', { name: 'Rescue plan' })
  await expect(plan.getByRole('row').nth(2)).toBeVisible()
  await accessible(page)
  await plan.getByRole('button', { name: /^Add the first 2 steps/ }).click()
  await expect(page.getByRole('button', { name: /Undo/ }).first()).toBeVisible()
  await saved(page)
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Undone: the first 2 steps of the rescue plan')).toBeVisible()

  await page.getByRole('button', { name: 'Split in halves' }).click()
  await expect(page.getByText('build half', { exact: false }).first()).toBeVisible()
  await page.getByRole('option', { name: /test half/ }).first().click()
  await accessible(page)
  await page.getByRole('button', { name: 'Put together again' }).click()
  await expect(page.getByRole('button', { name: 'Split in halves' })).toBeVisible()
})
