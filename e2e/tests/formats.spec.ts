import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { accessible, bring, demoReview, expect, ris, saved, test } from './tamiz'

test.use({ own: 'formats' })

/** What is saved with the dialog that is open, as text. */
async function download(page: Page, format: string): Promise<string> {
  await page.getByRole('radio', { name: new RegExp(`^${format}`) }).check()
  const file = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save the file' }).click()
  return readFile(await (await file).path(), 'utf8')
}

test('a file of each format becomes a sample', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  for (const [name, file] of [
    ['one.bib', '@article{a, title = {Heat in crews}}'],
    ['two.json', '[{"id": 1, "title": "Heat in crews"}]'],
    ['three.csv', 'title,year\nHeat in crews,2014\n'],
    ['four.tsv', 'title\tyear\nHeat in crews\t2014\n'],
    ['five.xml', '<mods xmlns="http://www.loc.gov/mods/v3"><titleInfo><title>Heat in crews</title></titleInfo></mods>'],
    ['six.xml', '<record xmlns="http://www.loc.gov/MARC21/slim"><leader>x</leader><datafield tag="245"><subfield code="a">Heat in crews</subfield></datafield></record>'],
    ['seven.xml', '<oai_dc:dc xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title>Heat in crews</dc:title></oai_dc:dc>'],
    ['eight.ris', ris({ title: 'Heat in crews' }).toString()],
  ] as const) {
    await bring(page, name, Buffer.from(file))
    await expect(page.getByRole('radio', { name: `Look at ${name.split('.')[0]}` })).toBeVisible()
  }
  await page.getByRole('row', { name: /six/ }).getByTitle('Open the records').click()
  await expect(page.getByRole('article', { name: 'The record' })).toContainText('Heat in crews')
})

test('the columns of a table are named once, and known again', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  const head = 'Entry;Team;Published;Seen by\n'
  await bring(page, 'own.csv', Buffer.from(`${head}Heat in crews;Velkana T | Osolana I;2014;Ife\nShade and rest at noon;Wexlin Z;2016;\n`))
  await page.getByRole('button', { name: 'Name the columns' }).click()
  const dialog = page.getByRole('dialog')
  const first = dialog.getByRole('article', { name: 'Record 1' })
  await expect(first).toContainText('Heat in crews')
  await dialog.getByLabel('What “Team” is').selectOption('Authors')
  await dialog.getByLabel('What parts the values of “Team”').selectOption('bars')
  await dialog.getByLabel('What “Published” is').selectOption('Year')
  await expect(first).toContainText('AuthorsVelkana TOsolana I')
  await expect(first).toContainText('Year2014')
  await accessible(page)
  await dialog.getByRole('button', { name: 'Read the file so' }).click()
  await expect(page.getByRole('radio', { name: 'Look at own' })).toBeVisible()
  await bring(page, 'next.csv', Buffer.from(`${head}Water in cane work;Cruda M;2018;\n`))
  await expect(page.getByRole('radio', { name: 'Look at next' })).toBeVisible()
})

test('a text that no reader knows is explained with a reader map, which can be shared', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  const cards = Buffer.from('Card: 1\nHead: Heat strain in\n crews\nBy: Velkana, Temi; Osolana, Ife\nWhen: 2014\n\nCard: 2\nHead: Noon shade\nBy: Wexlin, Z\nWhen: 2016\n')
  await bring(page, 'cards.txt', cards)
  await page.getByRole('button', { name: 'Explain the text' }).click()
  const dialog = page.getByRole('dialog')
  const first = dialog.getByRole('article', { name: 'Record 1' })
  await dialog.getByLabel('What Head is').selectOption('Title')
  await dialog.getByLabel('What When is').selectOption('Year')
  await expect(first).toContainText('TitleHeat strain in crews')
  await expect(first).toContainText('Year2014')
  await dialog.getByLabel('Name of this kind of text').fill(`Cards ${review.id}`)
  await accessible(page)
  const file = page.waitForEvent('download')
  await dialog.getByRole('button', { name: 'Save the map as a file' }).click()
  const map = JSON.parse(await readFile(await (await file).path(), 'utf8'))
  expect(map.tamiz).toBe('reader-map/1')
  await dialog.getByRole('button', { name: 'Read the file so' }).click()
  await expect(page.getByRole('radio', { name: 'Look at cards' })).toBeVisible()

  // The map is offered again, or taken from the file.
  await bring(page, 'more.txt', Buffer.concat([cards, Buffer.from('\n\nCard: 3\nHead: Water\n')]))
  await page.getByRole('button', { name: 'Explain the text' }).click()
  await dialog.getByLabel('A reader map that is kept').selectOption(`Cards ${review.id}`)
  await expect(first).toContainText('TitleHeat strain in crews')
  await dialog.getByLabel('Take a map from a file').setInputFiles({ name: 'map.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify({ ...map, name: 'Taken from a file' })) })
  await expect(dialog.getByLabel('Name of this kind of text')).toHaveValue('Taken from a file')
  await dialog.getByRole('button', { name: 'Read the file so' }).click()
  await expect(page.getByRole('row', { name: /more/ }).getByTitle('Open the records')).toHaveText('3')
})

test('records of the same work are looked at side by side, and joined', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  const record = (id: string, more: string) => `TY  - JOUR\nAN  - ${id}\nTI  - Heat strain among pickers\nAU  - Velkana, Temi\nPY  - 2014\n${more}ER  - \n`
  await bring(page, 'merged.ris', Buffer.from(record('A1', '') + record('B7', 'AB  - They rested in the shade.\n') + record('C9', 'KW  - noon\n')))
  await expect(page.getByText('2 records are of the same work as another')).toBeVisible()
  await page.getByRole('button', { name: 'Look at them' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('row', { name: /Abstract/ })).toContainText('They rested in the shade.')
  await dialog.getByRole('group', { name: 'For all' }).getByRole('button', { name: 'join' }).click()
  await dialog.getByRole('group', { name: /For this one/ }).nth(1).getByRole('button', { name: 'keep apart' }).click()
  await accessible(page)
  await dialog.getByRole('button', { name: 'Go on' }).click()
  await page.getByRole('row', { name: /merged/ }).getByTitle('Open the records').click()
  await expect(page.getByText('1 of 2')).toBeVisible()
  await expect(page.getByRole('article', { name: 'The record' })).toContainText('They rested in the shade.')
  await page.getByRole('button', { name: 'Close' }).click()

  await bring(page, 'again.ris', Buffer.from(record('A1', '') + record('B8', 'AB  - Another.\n')))
  await page.getByRole('button', { name: 'Leave again.ris out' }).click()
  await expect(page.getByText('again.ris')).toBeHidden()
  await expect(page.getByRole('radio')).toHaveCount(1)
})

test('records are kept on the shelf with one key, noted, found again, and taken out in every format', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  await bring(page, 'rough.ris', ris({ title: 'Heat in crews', keywords: ['*Kidney Harm/causes', 'shade'] }, { title: 'Rest at noon' }, { title: 'Water in cane work' }))
  await page.getByRole('row', { name: /rough/ }).getByTitle('Open the records').click()
  await expect(page.getByRole('article', { name: 'The record' })).toContainText('Heat in crews')
  await page.keyboard.press('k')
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('article', { name: 'The record' })).toContainText('Rest at noon')
  await page.keyboard.press('k')
  await expect(page.getByRole('button', { name: /^On the shelf/ })).toBeVisible()
  await page.getByRole('button', { name: 'Close' }).click()
  // They stay when the sample goes.
  await page.getByRole('button', { name: 'Delete rough' }).click()
  await page.getByRole('link', { name: /Shelf/ }).click()
  await expect(page.getByRole('listitem')).toHaveCount(2)
  await page.getByLabel('Note on Rest at noon').fill('look at table 2')
  await page.getByLabel('Note on Rest at noon').press('Enter')
  await page.getByLabel('Tags of Rest at noon').fill('to read, noon')
  await page.getByLabel('Tags of Rest at noon').press('Enter')
  await saved(page)
  await page.getByLabel('Note on Rest at noon').fill('look at table 2 again')
  await page.getByLabel('Note on Rest at noon').press('Enter')
  await expect(page.getByLabel('Note on Rest at noon')).toHaveValue('look at table 2 again')
  await saved(page)
  await expect(page.getByLabel('Note on Rest at noon')).toHaveValue('look at table 2 again')
  await page.reload()
  await expect(page.getByLabel('Tags of Rest at noon')).toHaveValue('to read, noon')
  await accessible(page)
  await page.getByLabel('Filter by words, notes or tags').fill('table 2')
  await expect(page.getByRole('listitem')).toHaveCount(1)
  await page.getByLabel('Filter by words, notes or tags').fill('')
  for (const [format, said] of [['RIS', 'KW  - *Kidney Harm/causes'], ['BibTeX', 'title = {Heat in crews}'], ['CSL-JSON', '"title":"Heat in crews"'], ['CSV', 'Heat in crews'], ['Table with tabs', '\tKidney Harm'], ['MODS', 'usage="primary"']] as const) {
    await page.getByRole('button', { name: 'Save 2…' }).click()
    if (format === 'RIS') await accessible(page)
    const text = await download(page, format)
    expect(text).toContain(format === 'Table with tabs' ? '*Kidney Harm/causes' : said)
    expect(text).toContain('Rest at noon')
  }
  await page.getByRole('button', { name: 'noon 1' }).click()
  await page.getByRole('button', { name: 'Save 1…' }).click()
  await page.getByRole('button', { name: 'none' }).click()
  await page.getByRole('checkbox', { name: 'Title', exact: true }).check()
  expect(await download(page, 'CSV')).toBe('title\nRest at noon\n')
  await page.getByRole('button', { name: 'Save 1…' }).click()
  await page.getByRole('radio', { name: /^Page to print/ }).check()
  const printed = page.context().waitForEvent('page')
  await page.getByRole('button', { name: 'Open the page' }).click()
  await expect((await printed).getByRole('heading', { name: 'Rest at noon' })).toBeVisible()
  await page.getByRole('button', { name: 'Take Rest at noon off the shelf' }).click()
  await expect(page.getByRole('listitem')).toHaveCount(1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('button', { name: 'all', exact: true }).click()
  await expect(page.getByRole('listitem')).toHaveCount(2)
})

test('any set of records can be saved: a sample, what only one term finds, missed studies', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/coverage`)
  await expect(page.getByLabel('7 key studies missed')).toBeVisible() // once it is known which studies the source holds
  await page.getByRole('button', { name: 'Save the missed…' }).click()
  await expect(page.getByRole('heading', { name: 'Save 7 records' })).toBeVisible()
  expect((await download(page, 'RIS')).match(/^TY {2}-/gm)).toHaveLength(7)
  await page.goto(`/reviews/${id}/blocks`)
  const row = page.getByRole('row').filter({ has: page.getByRole('switch') }).filter({ has: page.getByTitle('Open the records') }).first()
  await row.getByTitle('Open the records').last().click()
  const place = await page.getByText(/^1 of [\d,]+$/).textContent()
  await page.getByRole('button', { name: 'Save…' }).click()
  const only = (await download(page, 'RIS')).match(/^TY {2}-/gm)
  expect(only).toHaveLength(Number(place!.replace(/^1 of |,/g, '')))
})
