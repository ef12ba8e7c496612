import { accessible, add, begin, demoReview, expect, number, saved, test } from './tamiz'

test.use({ own: 'everywhere' })

test('the strategy is run everywhere, and its answers are set against each other', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/strategy`)
  await page.getByRole('tab', { name: 'Everywhere' }).click()
  const table = page.getByRole('table', { name: 'What each source answers' })
  await expect(table.getByRole('row', { name: /Surco/ })).toBeVisible()
  await page.getByLabel('fetch of each answer').selectOption('at most 100 records')
  await page.getByRole('button', { name: 'Run at 3 sources' }).click()
  const together = table.getByRole('row', { name: /^Together/ })
  await expect(together).toContainText('estimated from the records that were fetched')
  const almagre = table.getByRole('row', { name: /Almagre/ })
  const alone = number(await almagre.getByRole('cell').nth(1).locator('span').first().textContent())
  expect(alone).toBeGreaterThan(500)
  await expect(almagre).toContainText(/\d+ caught of 25 held/)
  await expect(page.getByRole('img', { name: /Almagre: .* that no other brings/ })).toBeVisible()
  await expect(page.getByRole('table', { name: 'Shared by two' }).getByRole('row')).toHaveCount(3)
  await accessible(page)

  // One source alone, everything of it: the others stay as they were.
  await page.getByLabel('Run at Almagre').uncheck()
  await page.getByLabel('Run at Vilano').uncheck()
  await page.getByLabel('fetch of each answer').selectOption('at most 10,000 records')
  await page.getByRole('button', { name: 'Run at 1 source' }).click()
  const surco = table.getByRole('row', { name: /Surco/ })
  const found = (await surco.getByRole('cell').nth(1).locator('span').first().textContent())!.trim()
  await expect(surco.getByRole('cell').nth(4)).toContainText(found)
  await surco.getByText(/^Query/).click()
  await expect(surco.getByRole('button', { name: 'Copy as one query' })).toBeVisible()

  // Its records become a sample, and go again.
  await surco.getByRole('button', { name: 'Make a sample of them' }).click()
  await expect(page.getByText('The records fetched from Surco are a sample now.')).toBeVisible()
  await page.getByRole('link', { name: 'Samples' }).click()
  await expect(page.getByRole('row', { name: /Whole strategy, Surco/ })).toContainText(found)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('row', { name: /Whole strategy, Surco/ })).toHaveCount(0)
})

test('a block is kept, taken into another review, and says when there is a newer one', async ({ page, review, request }) => {
  const name = `Farm people ${review.id}`
  const keep = async (button: string) => {
    await saved(page)
    await page.getByRole('button', { name: 'Keep for other reviews…' }).click()
    await page.getByLabel('Kept as').fill(name)
    await page.getByRole('button', { name: button }).click()
    await expect(page.getByText(`Kept as ${name}`)).toBeVisible()
  }
  await begin(page, review.path('question'), 'People')
  await add(page, 'farmworker*')
  await keep('Keep it')

  const other = await (await request.post('/api/reviews', { data: { name: 'Another with farm people' } })).json()
  await page.goto(`/reviews/${other.id}/blocks`)
  await page.getByRole('button', { name: 'Take a kept block…' }).click()
  const all = page.getByRole('region', { name: 'Blocks kept for reuse' })
  await accessible(page)
  await all.getByRole('listitem').filter({ hasText: name }).getByRole('button', { name: 'Take a copy' }).click()
  await expect(page.getByRole('switch', { name: 'farmworker* is searched' })).toBeVisible()
  await expect(page.getByText(`A copy of “${name}”, version 1.`)).toBeVisible()
  await saved(page)

  await page.goto(review.path('blocks'))
  await add(page, 'field hand*')
  await keep('Keep as version 2')
  await page.goto(`/reviews/${other.id}/blocks`)
  await page.getByRole('button', { name: 'Version 2 is there: take its lines instead' }).click()
  await expect(page.getByRole('switch', { name: 'field hand* is searched' })).toBeVisible()
  await expect(page.getByText(`A copy of “${name}”, version 2.`)).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByRole('switch', { name: 'field hand* is searched' })).toHaveCount(0)
})
