import { accessible, demoReview, expect, test } from './tamiz'

test.use({ own: 'paste' })

const old = `("cane cutter*" or farmwroker* or "agricultural labourer*" or heading = "Farm Workers" and ("rest break*" or shade or "rest breaks")`

test('an old query is pasted, mended, taken into blocks and written for two sources', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/strategy`)
  await page.getByRole('tab', { name: 'Paste a query' }).click()
  await expect(page.getByText('A query that a colleague wrote')).toBeVisible()
  await accessible(page)
  const query = page.getByRole('textbox', { name: 'Query' })
  await query.fill(old)
  const findings = page.getByRole('region', { name: 'Findings' })
  await expect(findings.getByRole('heading', { name: '5 findings' })).toBeVisible()
  await expect(page.getByRole('combobox', { name: 'written in' })).toContainText('CQL, told by itself')
  await accessible(page)

  // Each is mended in one click, and what is left is read anew.
  const mend = async (title: string, left: string) => {
    const row = findings.getByRole('listitem').filter({ has: page.getByRole('button', { name: title, exact: true }) })
    await row.getByRole('button', { name: /^(Mend|Take away)$/ }).click()
    await expect(findings.getByRole('heading', { name: left })).toBeVisible()
  }
  await mend('Misspelt?', '4 findings')
  await mend('Heading under another name', '3 findings')
  await mend('Inside another term', '2 findings')
  await mend('One spelling only', '1 finding')
  await mend('Bracket or mark without a partner', 'Nothing found')
  await expect(query).toHaveValue(/"agricultural laborer\*"/)
  await expect(query).not.toHaveValue(/rest breaks/)
  await expect(page.getByRole('region', { name: 'In words' })).toContainText('with the heading “Agricultural Labor Force”')

  // The same as a tree: each part with what it finds, and a click shows its place in the text.
  await page.getByRole('button', { name: 'As a tree' }).click()
  const said = page.getByRole('region', { name: 'In words' })
  await expect(said.getByRole('button', { name: 'all of', exact: true })).toBeVisible()
  await expect(said.getByRole('button', { name: 'any of', exact: true })).toHaveCount(3)
  await accessible(page)
  await said.getByRole('button', { name: 'shade', exact: true }).click()
  expect(await query.evaluate((x: HTMLTextAreaElement) => x.value.slice(x.selectionStart, x.selectionEnd))).toBe('shade')
  await said.getByRole('button', { name: 'Fold up: any of' }).first().click()
  await expect(said.getByText('4 parts')).toBeVisible()
  await page.getByRole('button', { name: 'As a tree' }).click()

  // Taken into the review: the second of its concepts into a block that is there.
  const blocks = page.getByRole('region', { name: 'As blocks' })
  await blocks.getByRole('combobox', { name: 'Where block B goes' }).selectOption({ label: 'B Heat protection' })
  await expect(blocks.getByText('is there')).toBeVisible()
  await blocks.getByRole('checkbox', { name: 'shade' }).uncheck()
  await blocks.getByRole('button', { name: /^Take \d parts$/ }).click()
  await expect(page).toHaveURL(/blocks/)
  await expect(page.getByRole('tab', { name: /^D cane cutter/ })).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByRole('tab', { name: /^D cane cutter/ })).toHaveCount(0)

  // The strategy as two sources want it typed.
  await page.goto(`/reviews/${id}/strategy`)
  const lines = page.getByRole('table', { name: 'Lines of the strategy' })
  const typed = page.getByRole('combobox', { name: 'typed for' })
  await typed.selectOption('Surco, line by line')
  await expect(lines.getByRole('columnheader', { name: 'As Surco wants it typed' })).toBeVisible()
  // Other walks may have added lines to A: as many as there are stand together.
  const many = await lines.getByRole('row', { name: /^\d+ A / }).count()
  expect(many).toBeGreaterThanOrEqual(8)
  await expect(lines.getByRole('row', { name: new RegExp(`^${many + 1} .*Outdoor farm crews`) })).toContainText(`either of lines 1 to ${many}`)
  await lines.getByText('1 note that changes nothing in the sample').first().click()
  await expect(lines.getByText(/Words near each other cannot be asked/)).toBeVisible()
  await accessible(page)

  // Surco has another vocabulary: a heading is carried over when somebody takes it, and until then its words stand in.
  const headings = page.getByRole('region', { name: 'Headings in Surco Thesaurus' })
  const first = lines.getByRole('row', { name: /^1 / })
  await expect(first).toContainText('words{agricultural labor force}')
  const take = headings.getByRole('button', { name: /for Agricultural Labor Force$/ }).first()
  await take.click()
  await expect(first).toContainText('topic{')
  await expect(first).not.toContainText('topic{Agricultural Labor Force}')
  await accessible(page)
  await headings.getByRole('button', { name: 'Decide otherwise for Agricultural Labor Force' }).click()
  await expect(first).toContainText('words{agricultural labor force}')
  await headings.getByRole('button', { name: 'None of these for Agricultural Labor Force' }).click()
  await expect(headings.getByText('Nothing stands for it: its words do.')).toBeVisible()
  await headings.getByRole('button', { name: 'Decide otherwise for Agricultural Labor Force' }).click()
  await expect(take).toBeVisible()

  await page.getByRole('button', { name: 'Copy all lines' }).click()
  await expect(page.getByText(/^Copied: \d+ lines/)).toBeVisible()
  expect(await page.evaluate(() => navigator.clipboard.readText())).toMatch(/^\d+\twords\{farmworker…\}$/m)
  await typed.selectOption('Vilano, one query')
  await expect(page.getByText(/^As it is typed for Vilano it finds/)).toBeVisible()
  await expect(page.getByRole('heading', { name: /\d queries, whose records belong together/ })).toBeVisible()
  await accessible(page)
  await typed.selectOption('CQL, as Tamiz writes it')
})

test('a dialect is made of another, tried as it is typed, kept, and used', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/strategy?part=dialects`)
  const tried = page.getByRole('table', { name: 'What it makes of a small strategy' })
  await expect(tried).toContainText('"kiln worker^"')
  await expect(page.getByLabel('short name')).toBeDisabled() // it ships
  await accessible(page)
  await page.getByRole('button', { name: 'Make one of it…' }).click()
  await page.getByLabel('short name').fill('harbour')
  await page.getByLabel('title', { exact: true }).first().fill('Harbour')
  await page.getByText('Words, phrases and signs').click()
  await page.getByLabel('sign for any number of characters').fill('$')
  await page.getByLabel('sign for exactly one').fill('$')
  await page.keyboard.press('Tab')
  await expect(page.getByRole('alert')).toBeVisible() // one sign for both
  await expect(page.getByRole('button', { name: 'Keep it' })).toBeDisabled()
  await page.getByLabel('sign for exactly one').fill('')
  await page.keyboard.press('Tab')
  await expect(tried).toContainText('"kiln worker$"')
  await expect(tried).toContainText('No sign for exactly one character: labo?rer') // what it cannot say any more is noted
  await accessible(page)

  // What is being written stays when the page is left.
  await page.reload()
  await expect(page.getByText('Being written: Harbour')).toBeVisible()
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save as JSON' }).click()])
  expect(file.suggestedFilename()).toBe('harbour.json')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('Harbour is kept, for every review.')).toBeVisible()
  await page.getByRole('tab', { name: 'Lines' }).click()
  await page.getByRole('combobox', { name: 'typed for' }).selectOption('Harbour, one query')
  await expect(page.getByRole('table', { name: 'Lines of the strategy' })).toContainText('farmworker$')
  await page.getByRole('combobox', { name: 'typed for' }).selectOption('CQL, as Tamiz writes it')

  // Taken away, and gone on with.
  await page.getByRole('tab', { name: 'Dialects' }).click()
  await page.getByRole('button', { name: 'Take it away' }).click()
  await page.getByRole('button', { name: 'Go on with it' }).click()
  await expect(page.getByText('Being written: Harbour')).toBeVisible()
  await page.getByLabel('as text').check()
  await page.getByRole('textbox', { name: 'The file of the dialect' }).fill('{ "tamiz": ')
  await expect(page.getByRole('alert')).toContainText('No dialect')
  await page.getByRole('button', { name: 'Throw away what is being written' }).click()
  await expect(page.getByRole('combobox', { name: 'Dialect' })).not.toContainText('Harbour')
})

test('what cannot be read is told, and nothing that was typed is lost', async ({ page, review }) => {
  await page.goto(`${review.path('strategy')}?part=paste`)
  const query = page.getByRole('textbox', { name: 'Query' })
  await query.fill('“heat” and (rest')
  await expect(page.getByRole('button', { name: 'Bracket or mark without a partner' })).toBeVisible()
  await expect(page.getByText('told where a sample is looked at').or(page.getByText('1 finding'))).toBeVisible()
  await page.reload()
  await expect(query).toHaveValue('“heat” and (rest')
  await page.getByRole('combobox', { name: 'written in' }).selectOption('Surco')
  await expect(page.getByRole('heading', { name: /findings$/ })).toBeVisible()
  await page.getByRole('combobox', { name: 'written in' }).selectOption('')
  await query.fill('')
})
