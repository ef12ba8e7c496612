import { accessible, expect, saved, test } from './tamiz'

test('from nothing, seed words become terms, a sample is drawn in parts, and a block is judged by what the other drew', async ({ page, review }) => {
  await page.goto(review.path('question'))
  for (const [block, concept, seeds] of [['A', 'Nurses', 'nurses, shift workers, night shift'], ['B', 'Sleep loss', 'sleep loss, insomnia']]) {
    await page.getByRole('button', { name: 'Add a concept' }).click()
    await page.getByLabel(`Name of concept ${block}`).fill(concept)
    await page.getByLabel(`Seed words of ${block}`).fill(seeds)
    await page.getByLabel(`Seed words of ${block}`).press('Enter')
    await saved(page)
  }
  await page.goto(review.path('blocks'))
  await page.getByRole('main').getByRole('button', { name: 'Take the 3 seed words as terms' }).click()
  await expect(page.getByRole('row', { name: /shift workers/ })).toBeVisible()
  await page.getByRole('tab', { name: /Sleep loss/ }).click()
  await page.getByRole('main').getByRole('button', { name: 'Take the 2 seed words as terms' }).click()
  await saved(page)

  // Drawn together alone, the sample tells nothing of the blocks; one press draws what does.
  await page.goto(review.path('samples'))
  await page.getByRole('button', { name: 'together', exact: true }).click()
  await page.getByRole('button', { name: /^Draw \d+/ }).click()
  await expect(page.getByRole('radio', { name: 'Look at nurses and sleep loss' })).toBeVisible()
  await page.goto(review.path('blocks'))
  await expect(page.getByText('The words of A chose all records drawn so far').first()).toBeVisible()
  await accessible(page)
  await page.getByRole('button', { name: 'Draw records by B alone from Almagre' }).first().click()
  await expect(page.getByText(/Told by [\d,]+ records that the words of A did not choose: B alone, Almagre/)).toBeVisible()
  await expect(page.getByRole('button', { name: /^nurses and sleep loss/ })).toBeVisible()

  // Drawn in parts, it tells of each block.
  await page.goto(review.path('samples'))
  await page.getByRole('button', { name: 'together and each by itself' }).click()
  await page.getByLabel('At most so many records').fill('900')
  await page.getByRole('button', { name: 'Draw up to 900 in parts' }).click()
  await expect(page.getByRole('radio', { name: 'Look at nurses and sleep loss' })).toHaveCount(2)
  await page.getByRole('radio', { name: 'Look at nurses and sleep loss' }).first().check()
  await page.goto(review.path('blocks'))
  await page.getByRole('tab', { name: /Sleep loss/ }).click()
  await expect(page.getByText(/Told by [\d,]+ records that the words of B did not choose/)).toBeVisible()
  await accessible(page)

  // A part of it is looked at by itself.
  await page.goto(review.path('samples'))
  await page.getByRole('button', { name: 'Report of nurses and sleep loss' }).first().click()
  await page.getByRole('button', { name: 'Look at the part by B alone' }).click()
  await expect(page).toHaveURL(/harvest/)
  await expect(page.getByText('nurses and sleep loss, the part by B').first()).toBeVisible()
  await accessible(page)
})
