import { readFile, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { accessible, bring, expect, folder, ris, run, saved, test } from './tamiz'

const heat = ris(...Array.from({ length: 8 }, (_, i) => ({ title: `Heat and shade among cane cutters ${i}`, abstract: 'Cane cutters took rest breaks in the shade of tents.' })))

test('coverage says that nothing is caught while no concept has a block', async ({ page, review }) => {
  await page.goto(review.path('question'))
  await bring(page, 'keys.ris', ris({ title: 'Rest breaks for cane cutters' }, { title: 'Shade tents and kidneys' }))
  await expect(page.getByText('Shade tents and kidneys')).toBeVisible()
  await page.goto(review.path('coverage'))
  await expect(page.getByText(/No concept has a block yet, so nothing can catch a study/).first()).toBeVisible()
  await expect(page.getByText('This study is caught.')).toHaveCount(0)
  await accessible(page)
})

test('a candidate begins a new concept', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  await bring(page, 'heat.ris', heat)
  await expect(page.getByRole('button', { name: '8', exact: true })).toBeVisible()
  await page.goto(review.path('harvest'))
  await page.getByRole('tab', { name: /Words/ }).click()
  const list = page.getByRole('listbox', { name: /Candidates|Words/ }).or(page.getByRole('listbox')).first()
  // In eight records that say nearly the same a phrase is hardly told from a piece of their sentences.
  await page.getByRole('button', { name: /\d aside$/ }).click()
  await list.getByRole('option', { name: /cane cutters/ }).first().click()
  await list.focus()
  await page.keyboard.press('n')
  await page.getByRole('textbox', { name: 'What the concept is called' }).fill('Farm crews')
  await accessible(page)
  await page.keyboard.press('Enter')
  await saved(page)
  await page.goto(review.path('blocks'))
  await expect(page.getByRole('heading', { name: /Farm crews/ })).toBeVisible()
  await expect(page.getByRole('row', { name: /cane cutters/ })).toBeVisible()
})

test('a file of records given as a vocabulary is told to be one, and taken where it belongs', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  await page.getByLabel('Drop a SKOS vocabulary here').setInputFiles({ name: 'heat.ris', mimeType: 'text/plain', buffer: heat })
  await expect(page.getByText('This is a file of records (RIS), not a vocabulary.')).toBeVisible()
  await accessible(page)
  await page.getByRole('button', { name: 'Bring it in as a sample' }).click()
  await expect(page.getByRole('radio', { name: 'Look at heat' })).toBeVisible()
  // The other way round.
  const line = (p: string, o: string) => `<https://v.example/1> <http://www.w3.org/2004/02/skos/core#${p}> ${o} .\n`
  const vocabulary = Buffer.from('<https://v.example/1> <http://www.w3.org/1999/02/22-rdf-syntax-ns#type> <http://www.w3.org/2004/02/skos/core#Concept> .\n' + line('prefLabel', '"Heat Illness"@en'))
  await bring(page, 'headings.nt', vocabulary)
  await expect(page.getByText('This is a vocabulary (SKOS), not a file of records.')).toBeVisible()
  await page.getByRole('button', { name: 'Bring it in as the vocabulary' }).click()
  await expect(page.getByText('1 heading', { exact: true })).toBeVisible()
})

test('a query typed as a term is told to be one, and its parts are offered', async ({ page, review }) => {
  await page.goto(review.path('question'))
  await page.getByRole('button', { name: 'Add a concept' }).click()
  await saved(page)
  await page.goto(review.path('blocks'))
  await page.getByLabel('Add a term to A').fill('cane cutter* OR "field hands"')
  await expect(page.getByText(/Its parts can be terms/)).toBeVisible()
  await accessible(page)
  await page.getByRole('button', { name: 'Add all 2' }).click()
  await expect(page.getByRole('row', { name: /cane cutter\*/ })).toBeVisible()
  await expect(page.getByRole('row', { name: /field hands/ })).toBeVisible()
  await saved(page)
})

test('a file is given up while it is on its way, and nothing of it is left', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  await page.route('**/imports?**', () => {}) // it never arrives
  await bring(page, 'slow.ris', heat)
  await page.getByRole('button', { name: 'Give slow.ris up' }).click()
  await expect(page.getByText(/slow.ris/)).toHaveCount(0)
  await page.unroute('**/imports?**')
  await bring(page, 'quick.ris', heat)
  await expect(page.getByRole('radio')).toHaveCount(1)
})

test('the database dies while someone works: nothing is lost, and the screens say how it stands', async ({ page }) => {
  const dir = await folder()
  const demo = await run(['demo', '--dir', dir, '--listen', '127.0.0.1:0'], { TAMIZ_DATABASE_URL: '' })
  try {
    await page.goto(`${demo.address}/reviews/2/blocks`)
    const field = page.getByLabel('Add a term to A')
    await expect(field).toBeVisible()
    const pid = Number((await readFile(join(dir, 'postgres', 'data', 'postmaster.pid'), 'utf8')).split('\n')[0])
    process.kill(pid, 'SIGKILL')
    await field.fill('orchard worker*')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('row', { name: /orchard worker\*/ })).toBeVisible()
    await saved(page)
    await page.reload()
    await expect(page.getByRole('row', { name: /orchard worker\*/ })).toBeVisible()
  } finally {
    await demo.stop()
    await rm(dir, { recursive: true, force: true })
  }
})
