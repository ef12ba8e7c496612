import { accessible, add, begin, bring, demoReview, expect, ris, test } from './tamiz'

test.use({ own: 'strategy' })

test('the strategy stands as numbered lines, with what a source cannot be asked noted beside them', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/strategy`)
  const lines = page.getByRole('table', { name: 'Lines of the strategy' })
  await expect(lines.getByRole('row', { name: /^2 A farmworker\*/ })).toContainText('1,058')
  // Other walks may have added lines to A: as many as there are stand together.
  const many = await lines.getByRole('row', { name: /^\d+ A / }).count()
  expect(many).toBeGreaterThanOrEqual(8)
  await expect(lines.getByRole('row', { name: new RegExp(`^${many + 1} .*Outdoor farm crews 1–${many} together`) })).toContainText(`or/1-${many}`)
  await accessible(page)

  // A block folds to its line.
  await lines.getByRole('button', { name: 'Fold A' }).click()
  await expect(lines.getByRole('row', { name: /farmworker/ })).toHaveCount(0)
  await expect(lines.getByRole('row', { name: /Outdoor farm crews/ })).toContainText(`${many} lines folded`)
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

test('a line is switched, noted, doubled and moved where the strategy is read', async ({ page, review }) => {
  await begin(page, review.path('question'), 'Crews')
  for (const term of ['crew*', 'picker*']) await add(page, term)
  await page.getByRole('link', { name: 'Strategy' }).click()
  const lines = page.getByRole('table', { name: 'Lines of the strategy' })
  const act = async (term: string, what: string) => {
    await lines.getByRole('button', { name: `More for ${term}` }).first().click()
    await page.getByRole('listitem').filter({ hasText: what }).or(page.getByText(what, { exact: true })).first().click()
  }
  await expect(lines.getByRole('row', { name: /^1 A crew\*/ })).toBeVisible()
  await act('picker*', 'Up')
  await expect(lines.getByRole('row', { name: /^1 A picker\*/ })).toBeVisible()
  await act('crew*', 'Switch it off')
  await expect(lines.getByRole('row', { name: /crew\*/ })).toContainText('switched off')
  await act('picker*', 'Note…')
  await page.getByLabel('Note on picker*').fill('as growers say')
  await page.getByLabel('Note on picker*').press('Enter')
  await expect(lines.getByRole('row', { name: /picker\*/ })).toContainText('as growers say')
  await act('picker*', 'Double it')
  await expect(lines.getByRole('row', { name: /picker\*/ })).toHaveCount(2)
  await accessible(page)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(lines.getByRole('row', { name: /picker\*/ })).toHaveCount(1)
})

test('lines are put together by their numbers, and stay of the same lines when those move', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  await bring(page, 'crews.ris', ris({ title: 'Crews and pickers' }, { title: 'Crews alone' }, { title: 'Growers' }))
  await begin(page, review.path('question'), 'Crews')
  for (const term of ['crew*', 'picker*', 'grower*']) await add(page, term)
  await page.getByRole('link', { name: 'Strategy' }).click()
  const lines = page.getByRole('table', { name: 'Lines of the strategy' })
  const put = page.getByRole('textbox', { name: 'Put lines together' })
  await put.fill('1 and 2 or 3')
  await put.press('Enter')
  await expect(page.getByRole('alert')).toContainText('Here OR follows AND: brackets have to say which belongs together.')
  await put.fill('3 or (1 AND 2)')
  await put.press('Enter')
  await expect(lines.getByRole('row', { name: /^5 3 or \(1 and 2\)/ })).toContainText('2')
  await expect(put).toHaveValue('')
  await put.fill('5 not 3')
  await put.press('Enter')
  const second = lines.getByRole('row', { name: /^6 5 not 3/ })
  await second.getByRole('button', { name: '1', exact: true }).click()
  await expect(page.getByRole('button', { name: /^Crews and pickers/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await accessible(page)

  // Numbered otherwise, they mean the same.
  await page.getByRole('button', { name: 'Fold A' }).click()
  await page.getByRole('button', { name: 'Unfold A' }).click()
  await page.getByLabel('numbered').selectOption('headings first')
  await expect(lines.getByRole('row', { name: /^5 3 or \(1 and 2\)/ })).toContainText('2')
  await page.getByLabel('numbered').selectOption('as they stand')

  // The parts stay what they are.
  await lines.getByRole('button', { name: 'More for grower*' }).click()
  await page.getByText('Up', { exact: true }).click()
  await expect(lines.getByRole('row', { name: /^5 2 or \(1 and 3\)/ })).toBeVisible()
  await lines.getByRole('button', { name: 'More for grower*' }).click()
  await page.getByText('Switch it off', { exact: true }).click()
  await expect(lines.getByRole('row', { name: /\? or \(1 and 2\)/ })).toContainText('a line of it is switched off')

  // No line is part of itself.
  await lines.getByRole('button', { name: 'More for line 4' }).click()
  await page.getByText('Put together otherwise…').click()
  await page.getByRole('textbox', { name: 'Put together otherwise' }).fill('5 or 1')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('There is no line 5 before this one: there are 3.')
  await page.getByRole('textbox', { name: 'Put together otherwise' }).fill('1 not 2')
  await page.keyboard.press('Enter')
  await expect(lines.getByRole('row', { name: /^4 1 not 2/ })).toBeVisible()
  await lines.getByRole('button', { name: 'More for line 4' }).click()
  await page.getByText('Remove', { exact: true }).click()
  await expect(lines.getByRole('row', { name: /^4 \? not \?/ })).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(lines.getByRole('row', { name: /^4 1 not 2/ })).toBeVisible()
})
