import type { Locator, Page } from '@playwright/test'
import { accessible, add, begin, demoReview, expect, number, saved, test } from './tamiz'

test.use({ own: 'studies' })

const bench = (page: Page) => page.getByRole('complementary', { name: 'Bench' })
const works = (page: Page) => page.getByRole('listbox', { name: 'Works that rounds brought' })
const chosen = (page: Page) => works(page).getByRole('option', { selected: true })

/** Waits until a round is at its end: its state is a date then. Its other figures can look like a year. */
const ended = (round: Locator) => expect(round.getByRole('cell').nth(2)).toHaveText(/\b20\d\d\s*$/)

const five = [
  'Rest breaks and kidney function decline in seasonal farm workers',
  'Hydration and cross-shift change in creatinine of migrant farmworkers',
  'Electrolyte solution for farm workers in extreme heat',
  'Heat stress prevention training for migrant workers',
  'Water, rest and shade for sugarcane workers',
]
const seven = [
  'Siesta timing and tubular markers among campesinos',
  'Cooling vests and kidney strain in field hands',
  'Scheduled rest for cane cutters: a stepped trial',
  'Paid rest for piece-rate farmworkers',
  'Drinking water at the crop row: agricultural labourers and their kidneys',
  'Work–rest schedules on tomato farms',
  'A rest programme on banana plantations',
]

test('from five key studies in two rounds to twelve; three that block A misses are brought back by their words', async ({ page, review }) => {
  await begin(page, review.path('question'), 'Farm crews')
  for (const term of ['farmworker*', '"farm worker*"', '"agricultural worker*"', '"agricultural labourer*"', '"migrant worker*"', '"sugarcane worker*"', '"plantation worker*"', '"farm labourer*"']) await add(page, term.replaceAll('"', ''))
  await saved(page)
  await page.getByRole('link', { name: 'Question' }).click()
  await page.getByRole('button', { name: 'Paste references' }).click()
  await page.getByLabel(/Titles, DOIs or whole references/).fill(five.join('\n'))
  await page.getByRole('button', { name: 'Look up in every source' }).click()
  await page.getByRole('button', { name: 'Take in 5 key studies' }).click()
  await expect(page.getByText('5 known to belong')).toBeVisible()
  await page.getByRole('link', { name: 'Find more' }).click()

  // Two rounds, from the key studies and then from what that brings.
  const form = page.getByRole('form', { name: 'Another round' })
  await expect(form.getByText('knows who cites whom')).toHaveCount(1)
  await accessible(page)
  await form.getByLabel('twice: once more from what that brings').check()
  await form.getByLabel('Surco').uncheck()
  await form.getByRole('button', { name: 'Look' }).click()
  const rounds = page.getByRole('region', { name: 'Rounds' })
  await expect(rounds.getByRole('row', { name: /^2 / })).toContainText('works of the round before')
  await ended(rounds.getByRole('row', { name: /^2 / }))
  await expect(rounds.getByRole('row', { name: /^1 / })).toContainText('5 key studies')
  const toJudge = page.getByRole('button', { name: /^to judge/ })
  // A list keeps its places while works come in: all that both rounds brought is awaited, and put in order.
  const brought = await (await page.request.get(`/api/reviews/${review.id}/found?show=open&order=ties&most=1`)).json()
  const open: number = brought.counts.open
  expect(open).toBeGreaterThan(1000)
  await expect(toJudge).toContainText(open.toLocaleString('en-GB'))
  await accessible(page)

  // Judged by keyboard, one key each: what leaves the list makes room for the next.
  await works(page).focus()
  await page.keyboard.press('o')
  const taken = new Set<string>()
  let refused = ''
  for (let i = 0; i < 60 && taken.size < seven.length; i++) {
    const title = (await chosen(page).locator('.title').textContent())!.trim()
    if (seven.includes(title)) {
      await page.keyboard.press('1')
      taken.add(title)
    } else if (!refused) {
      await page.keyboard.press('2')
      refused = title
    } else {
      await page.keyboard.press('ArrowDown')
      await expect(chosen(page).locator('.title')).not.toHaveText(title)
      continue
    }
    await expect(works(page).getByText(title, { exact: true })).toHaveCount(0)
    // What belongs now changes the order: it has come before the next key is pressed.
    await expect(toJudge).toContainText((open - taken.size - Number(refused !== '')).toLocaleString('en-GB'))
  }
  expect([...taken].sort()).toEqual([...seven].sort())
  await expect(toJudge).toContainText((open - 8).toLocaleString('en-GB'))
  await expect(bench(page)).toContainText('of 12 key studies caught')
  const before = number((await bench(page).getByText(/of 12 key studies caught/).locator('..').textContent())!.split('of')[0])
  expect(before).toBe(9)

  // What was refused is not asked again, and can be taken back.
  await page.getByRole('button', { name: /^not 1/ }).click()
  await expect(works(page).getByText(refused, { exact: true })).toBeVisible()
  await page.getByRole('button', { name: /^key studies/ }).click()
  await chosen(page).waitFor()
  await works(page).getByText('Cooling vests and kidney strain in field hands').click()
  await page.getByRole('link', { name: 'What would catch it' }).click()
  await expect(page.getByRole('heading', { name: 'Cooling vests and kidney strain in field hands' })).toBeVisible()
  await page.getByRole('link', { name: 'Blocks' }).click()
  await add(page, 'campesino*')
  await add(page, 'field hand*')
  await expect(bench(page)).toContainText('11of 12 key studies caught')
  await add(page, 'cane cutter*')
  await expect(bench(page)).toContainText('12of 12 key studies caught')

  // Where they came from, and what that says.
  await page.getByRole('link', { name: 'Key studies' }).click()
  await page.getByRole('tab', { name: 'Where they came from' }).click()
  await expect(page.getByRole('row', { name: /Siesta timing/ })).toContainText('a round')
  await expect(page.getByRole('row', { name: /Water, rest and shade/ })).toContainText('a look-up')
  await accessible(page)
  await page.getByRole('tab', { name: 'What it says' }).click()
  await expect(page.getByRole('region', { name: 'Caught, by where key studies came from' }).getByRole('row', { name: /a round/ })).toContainText('7')
  await expect(page.getByRole('region', { name: 'What each round brought' }).getByRole('row', { name: /^1/ })).toContainText('5 key studies')
  await accessible(page)
})

test('who cites whom is a picture and a table; references that led nowhere are listed; it stands in the record', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/studies?part=network`)
  const picture = page.getByRole('img', { name: /works over the years/ })
  await expect(picture).toBeVisible()
  await picture.focus()
  await page.keyboard.press('+')
  await page.keyboard.press('ArrowLeft')
  await accessible(page)
  await page.getByRole('button', { name: 'Whole' }).click()
  await page.getByRole('table').getByRole('button').first().click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.press('Escape')

  await page.getByRole('tab', { name: 'Find more' }).click()
  await page.getByTitle('Open the references that led nowhere').first().click()
  await expect(page.getByRole('dialog', { name: 'References that led nowhere' }).getByRole('listitem').first()).toBeVisible()
  await accessible(page)
  await page.getByRole('button', { name: 'Close' }).click()

  // The works of a person, from the same screen; a name that nobody has is no error.
  await page.getByRole('button', { name: 'Another round' }).click()
  const form = page.getByRole('form', { name: 'Another round' })
  await form.getByRole('radio', { name: /Works of people/ }).check()
  await form.getByLabel('Family name, given names; next person').fill('Nobody, Whosoever')
  await form.getByRole('button', { name: 'Look' }).click()
  await expect(page.getByRole('region', { name: 'Rounds' }).getByRole('row', { name: /^2 Works of people/ })).toContainText('0')

  // A journal of the hand-search list leads to the same form, and its years are brought to be read.
  await page.goto(`/reviews/${id}/harvest`)
  await page.getByRole('tab', { name: /^Journals/ }).click()
  await page.getByRole('link', { name: /^Look through Journal of Field Medicine/ }).click()
  await expect(form.getByLabel('Name of the journal')).toHaveValue('Journal of Field Medicine')
  await form.getByLabel('first year').fill('2019')
  await form.getByLabel('last year').fill('2020')
  await form.getByRole('button', { name: 'Look' }).click()
  await ended(page.getByRole('region', { name: 'Rounds' }).getByRole('row', { name: /^3 A journal, over years Journal of Field Medicine, 2019 to 2020/ }))

  // How far each volume was looked at is told, and leads to what is to be read of it.
  await page.getByRole('tab', { name: 'What it says' }).click()
  const byHand = page.getByRole('region', { name: 'Journals that are read by hand' })
  await expect(byHand.getByRole('row', { name: /Journal of Field Medicine/ })).toContainText(/20(19|20)/)
  await expect(byHand.getByText('Not looked through yet.').first()).toBeVisible()
  await accessible(page)
  await byHand.getByRole('link', { name: 'Read', exact: true }).click()
  await expect(page.getByRole('combobox', { name: /^Order/ })).toHaveValue('year')
  await expect(works(page).getByRole('option').first()).toContainText('Journal of Field Medicine')

  await page.goto(`/reviews/${id}/logbook?part=runs`)
  await expect(page.getByText('what these cite, and what cites them: 28 key studies').first()).toBeVisible()
  await page.goto(`/reviews/${id}/logbook?part=record`)
  await expect(page.getByText('How key studies were found').first()).toBeVisible()
})

test('a source says whether it knows who cites whom', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/sources`)
  for (const [name, knows] of [['Vilano', true], ['Surco', false]] as const) {
    await page.getByRole('button', { name: new RegExp(`^${name}`) }).first().click()
    await expect(page.getByRole('definition').filter({ hasText: 'what a work cites' })).toHaveCount(1)
    const lacks = page.getByRole('definition').filter({ hasText: knows ? 'no narrower headings' : 'who cites a work' })
    await expect(lacks.first()).toBeVisible()
    await expect(page.getByLabel('what a work cites')).toHaveValue(knows ? 'tamiz.citedBy' : '')
  }
})

test('two people judge the same list, and neither is asked again', async ({ page, browser, baseURL }) => {
  const id = await demoReview(page)
  const other = await (await browser.newContext({ baseURL })).newPage()
  for (const p of [page, other]) {
    await p.goto(`/reviews/${id}/studies`)
    await expect(chosen(p)).toBeVisible()
  }
  const title = (await chosen(page).locator('.title').textContent())!.trim()
  await works(page).focus()
  await page.keyboard.press('3')
  await expect(works(page).getByText(title, { exact: true })).toHaveCount(0)
  await expect(works(other).getByText(title, { exact: true })).toHaveCount(0)
  await other.getByRole('button', { name: /^unsure 1/ }).click()
  await expect(works(other).getByText(title, { exact: true })).toBeVisible()
  await other.context().close()
})

test('what one reads is followed; reading at random tells how many are left', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/studies?part=says`)
  const left = page.getByRole('region', { name: 'How many are left in what rounds brought?' })
  await expect(left).toContainText('read ten at random')
  await left.getByRole('link', { name: 'Read at random' }).click()
  await expect(page.getByRole('combobox', { name: /^Order/ })).toHaveValue('random')
  await works(page).focus()
  for (let i = 0; i < 10; i++) {
    const title = (await chosen(page).locator('.title').textContent())!.trim()
    await page.keyboard.press(i % 5 ? '2' : '3')
    await expect(works(page).getByText(title, { exact: true })).toHaveCount(0)
  }
  await page.getByRole('tab', { name: 'What it says' }).click()
  await expect(left).toContainText('that belong are likely to be left')
  await expect(left).toContainText(/Of 1[0-2] that were read at random/)
  await accessible(page)

  // From a record that is read, a round goes on.
  await page.getByRole('tab', { name: 'Find more' }).click()
  const one = page.getByRole('complementary', { name: 'The chosen work' })
  await page.getByRole('combobox', { name: /^Order/ }).selectOption('by times cited')
  await one.getByText(/^cites \d+ works?$/).click()
  await expect(one.getByRole('list').getByRole('listitem').first()).toBeVisible()
  await accessible(page)
  await one.getByRole('link', { name: 'Follow what it cites, and what cites it' }).click()
  const form = page.getByRole('form', { name: 'Another round' })
  await expect(form.getByLabel('Beginning from').locator('option:checked')).toHaveText('what you were reading: one record')
  await form.getByRole('button', { name: 'Look' }).click()
  await ended(page.getByRole('region', { name: 'Rounds' }).getByRole('row', { name: /\b1 record\b/ }))

  // From what is marked in any list of records, as well.
  await page.getByRole('complementary', { name: 'Bench' }).getByRole('button', { name: /in the sample/ }).click()
  const reader = page.getByRole('dialog')
  await reader.getByRole('list', { name: 'Records' }).getByRole('listitem').nth(2).waitFor()
  await page.keyboard.press('m')
  await page.keyboard.press('m')
  await expect(reader.getByText('2 marked records')).toBeVisible()
  await expect(reader.getByRole('checkbox').nth(1)).toBeChecked()
  await expect(reader.getByRole('checkbox').nth(2)).not.toBeChecked()
  await accessible(page)
  await reader.getByRole('button', { name: 'Follow what they cite' }).click()
  await expect(form.getByLabel('Beginning from').locator('option:checked')).toHaveText('what you were reading: 2 marked records')
  await form.getByRole('button', { name: 'Look' }).click()
  await ended(page.getByRole('region', { name: 'Rounds' }).getByRole('row', { name: /\b2 records\b/ }))
})
