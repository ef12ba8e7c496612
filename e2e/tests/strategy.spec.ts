import { accessible, demoReview, expect, test } from './tamiz'

test('the strategy stands as numbered lines, with what a source cannot be asked noted beside them', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/strategy`)
  const lines = page.getByRole('table', { name: 'Lines of the strategy' })
  await expect(lines.getByRole('row', { name: /^2 A farmworker\*/ })).toContainText('1,058')
  await expect(lines.getByRole('row', { name: /^9 .*Outdoor farm crews 1–8 together/ })).toContainText('or/1-8')
  await accessible(page)

  // A block folds to its line.
  await lines.getByRole('button', { name: 'Fold A' }).click()
  await expect(lines.getByRole('row', { name: /farmworker/ })).toHaveCount(0)
  await expect(lines.getByRole('row', { name: /Outdoor farm crews/ })).toContainText('8 lines folded')
  await lines.getByRole('button', { name: 'Unfold A' }).click()

  // Vilano has no headings and no nearness.
  await page.getByRole('combobox', { name: 'typed for' }).selectOption('Vilano')
  await expect(lines.getByRole('columnheader', { name: 'As Vilano is asked' })).toBeVisible()
  await expect(lines.getByRole('row', { name: /shade ~3 tent/ }).or(lines.getByText(/near/i)).first()).toBeVisible()
  const whole = page.getByRole('region', { name: 'As one query' })
  await expect(whole).toContainText(/notes? on the whole/)
  await accessible(page)

  await page.getByRole('button', { name: 'Copy line 2', exact: true }).click()
  await expect(page.getByText('Copied: line 2.')).toBeVisible()
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain('farmworker*')
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save as text' }).click()])
  expect(file.suggestedFilename()).toBe('Heat and kidneys in farm crews, Vilano.txt')
  await page.getByRole('combobox', { name: 'typed for' }).selectOption('CQL, as Tamiz writes it')
  await expect(whole).toContainText('"Agricultural Labor Force"')
})

test('a review without a term says what goes here', async ({ page, review }) => {
  await page.goto(review.path('strategy'))
  await expect(page.getByRole('heading', { name: 'No line yet' })).toBeVisible()
  await page.getByRole('link', { name: 'To the blocks' }).click()
  await expect(page).toHaveURL(/blocks/)
})
