import { accessible, bring, expect, ris, saved, test } from './tamiz'

// What a rough search on farm crews might bring: two blocks find most of it, one study is missed.
const crews = ['farmworkers', 'farm workers', 'cane cutters', 'field hands']
const records = Array.from({ length: 60 }, (_, i) => ({
  title: `${i % 6 ? 'Rest breaks and heat in' : 'Heat:'} ${crews[i % 4]}, season ${i}`,
  abstract: `${i % 7 ? 'We followed' : 'Over a harvest,'} ${crews[i % 4]} over ${['a harvest', 'one season', 'two summers'][i % 3]}. ${i % 5 ? 'Rest breaks lowered heat strain.' : 'Strain fell with rest breaks.'} ${i % 3 ? 'Shade tents were used.' : 'Drinking water was given.'}`,
  keywords: ['heat', '*Fluid Intake'],
}))
const others = Array.from({ length: 40 }, (_, i) => ({ title: `Night shifts of nurses, ward ${i}`, abstract: 'Nurses slept after night shifts.', keywords: ['sleep'] }))
const keys = [
  { title: 'Rest breaks for farmworkers', abstract: 'Farmworkers took rest breaks in the heat.' },
  { title: 'Scheduled rest in cane cutters', abstract: 'Cane cutters took rest breaks over one harvest.' },
]

test('a newcomer goes from nothing to the word that brings a missed study back', async ({ page }) => {
  await page.goto('/')
  await page.getByLabel('Name of the new review').fill('Heat in farm crews')
  await page.getByRole('button', { name: 'Begin a review' }).click()

  // Question: what is asked, along a frame; what must be found.
  await page.getByLabel('The question').fill('Do rest breaks protect farm crews from heat?')
  await page.getByRole('button', { name: 'Choose a frame' }).click()
  await page.getByText('Effect of an intervention').click()
  await page.getByLabel('Name of concept A').fill('Farm crews')
  await page.getByLabel('Name of concept B').fill('Rest breaks')
  await page.getByLabel('Seed words of A').fill('farm workers, field hands')
  await page.getByLabel('Seed words of A').press('Enter')
  await page.getByRole('switch', { name: 'C is searched' }).click()
  await page.getByLabel('Why C is kept out').fill('abstracts leave it unsaid')
  await page.getByLabel('Why C is kept out').press('Enter')
  await expect(page.getByRole('button', { name: 'Remove seed word field hands' })).toBeVisible()
  await bring(page, 'keys.ris', ris(...keys))
  await expect(page.getByText('2 known to belong')).toBeVisible()
  await page.getByRole('button', { name: 'Scheduled rest in cane cutters', exact: true }).click()
  await expect(page.getByRole('article', { name: 'The record' })).toContainText('Cane cutters took rest breaks')
  await accessible(page)
  await page.getByRole('button', { name: 'Close' }).click()
  await accessible(page)

  // Samples: a rough one, and something to set it against.
  await page.getByRole('link', { name: 'Samples' }).click()
  await expect(page.getByText('No sample yet')).toBeVisible()
  await bring(page, 'rough.ris', ris(...records))
  await expect(page.getByRole('button', { name: '60', exact: true })).toBeVisible()
  await bring(page, 'others.ris', ris(...others))
  await expect(page.getByRole('button', { name: '40', exact: true })).toBeVisible()
  await page.getByRole('radio', { name: 'Look at rough' }).check()
  await accessible(page)

  // Harvest, with the keyboard alone.
  await page.getByRole('link', { name: 'Harvest', exact: true }).click()
  const list = page.getByRole('listbox', { name: 'Open candidates' })
  await expect(list.getByRole('option').first()).toBeVisible()
  await list.focus()
  await page.keyboard.press('/')
  await page.keyboard.type('farmworkers')
  await page.keyboard.press('Enter')
  await expect(list.getByRole('option', { selected: true })).toContainText('farmworkers')
  await expect(page.getByRole('complementary', { name: 'Bench' })).toContainText('+ farmworkers, farm workers')
  await page.keyboard.press('1')
  await expect(page.getByText(/1 kept/)).toBeVisible()
  await page.keyboard.press('/')
  await page.getByLabel('Filter', { exact: true }).fill('rest breaks')
  await page.keyboard.press('Enter')
  await page.keyboard.press('2')
  await expect(page.getByText(/2 kept/)).toBeVisible()
  await page.getByLabel('Filter', { exact: true }).fill('season')
  await page.keyboard.press('Enter')
  await page.keyboard.press('d')
  await page.keyboard.press('2')
  await expect(page.getByText(/1 dropped/)).toBeVisible()
  await saved(page)
  await accessible(page)

  // The bench: one of two studies is caught.
  const bench = page.getByRole('complementary', { name: 'Bench' })
  await expect(bench.getByTestId('caught')).toHaveText('1')
  await expect(bench.getByRole('img', { name: /Farm crews: 1 caught, 1 missed/ })).toBeVisible()

  // Blocks: what was taken stands there; a term is typed.
  await page.getByRole('link', { name: 'Blocks' }).click()
  await expect(page.getByRole('row', { name: /farmworkers/ })).toBeVisible()
  await expect(page.getByRole('row', { name: /farm workers/ })).toBeVisible()
  await page.keyboard.press('n')
  await page.keyboard.type('field hand*')
  await expect(page.getByText('15 records, 0 key studies')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('row', { name: /field hand\*/ })).toBeVisible()
  await accessible(page)

  // Coverage: the missed study stands first, says why, and offers the word.
  await page.getByRole('link', { name: /Coverage/ }).click()
  const missed = page.getByRole('option', { name: /Scheduled rest in cane cutters/ })
  await expect(missed).toHaveAttribute('aria-selected', 'true')
  await expect(page.getByText('A alone')).toBeVisible()
  await expect(page.getByText('Would bring it back into A')).toBeVisible()
  await accessible(page)
  const row = page.getByRole('row', { name: /^cane cutters \d/ })
  await expect(row).toContainText('+15')
  await row.hover()
  await expect(bench.getByRole('img', { name: /Farm crews: 1 caught, 0 missed, 1 would be caught/ })).toBeVisible()
  await expect(bench.getByTestId('to-read')).toHaveText('60')
  await page.getByRole('button', { name: 'Add cane cutters to A', exact: true }).click()
  await expect(bench.getByRole('img', { name: /Farm crews: 2 caught, 0 missed, 0 would/ })).toBeVisible()
  await expect(bench.getByTestId('caught')).toHaveText('2')
  await expect(page.getByText('This study is caught.')).toBeVisible()
})
