import type { Page } from '@playwright/test'
import { accessible, bring, demoReview, expect, ris, saved, test } from './tamiz'

test.use({ own: 'headings' })

const bench = (page: Page) => page.getByRole('complementary', { name: 'Bench' })
const leads = (page: Page) => page.getByRole('listbox', { name: 'Headings found' }).getByRole('option')
const node = (page: Page, name: string | RegExp) => page.getByRole('tree').getByRole('treeitem', { name })

interface Concept {
  id: string
  label: string
  es?: string
  terms?: string[]
  broader?: string
  note?: string
  since?: string
  replaces?: string
}
/** A vocabulary in N-Triples. */
function skos(concepts: Concept[]): Buffer {
  const core = 'http://www.w3.org/2004/02/skos/core#'
  const dct = 'http://purl.org/dc/terms/'
  return Buffer.from(
    concepts
      .flatMap((c) => [
        `<c:${c.id}> <${core}prefLabel> "${c.label}"@en .`,
        ...(c.es ? [`<c:${c.id}> <${core}prefLabel> "${c.es}"@es .`] : []),
        ...(c.terms ?? []).map((x) => `<c:${c.id}> <${core}altLabel> "${x}"@en .`),
        ...(c.broader ? [`<c:${c.id}> <${core}broader> <c:${c.broader}> .`] : []),
        ...(c.note ? [`<c:${c.id}> <${core}scopeNote> "${c.note}"@en .`] : []),
        ...(c.since ? [`<c:${c.id}> <${dct}issued> "${c.since}" .`] : []),
        ...(c.replaces ? [`<c:${c.id}> <${dct}replaces> <c:${c.replaces}> .`] : []),
      ])
      .join('\n') + '\n',
  )
}

const first: Concept[] = [
  { id: '1', label: 'Body and Work' },
  { id: '2', label: 'Exhaustion of Field Hands', es: 'Agotamiento', broader: '1', terms: ['fatigue among pickers', 'picker fatigue', 'tired crews', 'weary hands'], note: 'For sleepiness use Drowsiness.', since: '2010', replaces: '6' },
  { id: '3', label: 'Exhaustion by Heat', broader: '2' },
  { id: '4', label: 'Exhaustion at Night', broader: '2' },
  { id: '5', label: 'Drowsiness', broader: '1' },
  { id: '6', label: 'Strain, Rural' },
]
const records = [
  { title: 'Picker fatigue by noon', keywords: ['Exhaustion of Field Hands', 'picking'], year: 2012 },
  { title: 'Tired crews and heat', keywords: ['Exhaustion by Heat'], year: 2013 },
  { title: 'Crews by night', keywords: ['Exhaustion at Night'], year: 2014 },
  { title: 'Weary hands at night', keywords: ['*Exhaustion of Field Hands'], year: 2015 },
  { title: 'Strain of old', keywords: ['Strain, Rural'], year: 2005 },
  { title: 'Strain of today', keywords: ['Strain, Rural'], year: 2016 },
  { title: 'A picker sings', keywords: ['song'], year: 2016 },
]

async function prepared(page: Page, review: { path: (screen: string) => string }) {
  await page.goto(review.path('question'))
  await page.getByRole('button', { name: 'Add a concept' }).click()
  await saved(page)
  await page.goto(review.path('samples'))
  await page.getByLabel('Drop a SKOS vocabulary here').setInputFiles({ name: 'Field terms.nt', mimeType: 'text/plain', buffer: skos(first) })
  await expect(page.getByText('Field terms', { exact: true })).toBeVisible()
  await bring(page, 'crews.ris', ris(...records))
  await expect(page.getByRole('button', { name: String(records.length), exact: true })).toBeVisible()
}

test('from a lay word to a heading of another name, its branch but one, its words and the older heading, by keyboard', async ({ page, review }) => {
  await prepared(page, review)
  await page.getByRole('link', { name: 'Headings' }).click()
  await page.getByRole('searchbox', { name: 'A lay word, a heading, an entry term' }).focus()
  await page.keyboard.type('fatigue among pickers')
  const lead = leads(page).filter({ hasText: 'Exhaustion of Field Hands' }).first()
  await expect(lead).toContainText('entry term: fatigue among pickers')
  await expect(page.getByRole('article', { name: 'Exhaustion of Field Hands' })).toBeVisible()
  await accessible(page)

  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('listbox', { name: 'Headings found' })).toBeFocused()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('tree')).toBeFocused()
  await expect(node(page, /Exhaustion of Field Hands/)).toContainText('24')
  // Its branch but one: past the first below, and the second is left out.
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Space')
  await expect(page.getByRole('radio', { name: /choose below/ })).toBeChecked()
  await expect(page.getByText('choose below 3')).toBeVisible()
  await expect(bench(page).getByText(/\+ Exhaustion of Field Hands/)).toBeVisible()

  // What was used before it is taken too, up to the year before.
  const before = page.getByRole('checkbox', { name: 'Take it too, to 2009' })
  await expect(page.getByText('1 record to 2009')).toBeVisible()
  await before.focus()
  await page.keyboard.press('Space')
  const words = page.getByRole('region', { name: 'Entry terms, as words' })
  for (const word of ['picker fatigue', 'tired crews', 'weary hands']) await expect(words.getByRole('checkbox', { name: new RegExp(word) })).toBeChecked()
  await expect(words.getByRole('checkbox', { name: /fatigue among pickers/ })).not.toBeChecked()
  await expect(page.getByRole('button', { name: 'Add heading and 3 words to A' })).toBeEnabled()

  await page.getByRole('tree').focus()
  await page.keyboard.press('1')
  await expect(page.getByRole('button', { name: 'It stands in A so already.' })).toBeDisabled()
  await saved(page)
  await accessible(page)

  await page.getByRole('link', { name: 'Blocks' }).click()
  for (const term of ['Exhaustion of Field Hands', 'Strain, Rural ≤ 2009', 'picker fatigue', 'tired crews', 'weary hands']) await expect(page.getByRole('switch', { name: `${term} is searched`, exact: true })).toBeVisible()
  await expect(page.getByText('less 1 below')).toBeVisible()
  await expect(bench(page).getByText('5', { exact: true }).first()).toBeVisible()

  // It can be undone as one.
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('switch')).toHaveCount(0)
})

test('a lay word in another language, and one with a letter wrong', async ({ page, review }) => {
  await prepared(page, review)
  await page.goto(review.path('headings'))
  const search = page.getByRole('searchbox', { name: 'A lay word, a heading, an entry term' })
  await search.fill('agotamiento')
  await expect(leads(page).first()).toContainText('label in es: Agotamiento')
  await page.getByRole('combobox', { name: 'Language of the labels' }).selectOption('es')
  await expect(page.getByRole('heading', { name: 'Agotamiento' })).toBeVisible()
  await page.getByRole('combobox', { name: 'Language of the labels' }).selectOption('')
  await search.fill('exhaustoin by heat')
  await expect(leads(page).first()).toContainText('meant: exhaustion by heat?')
  await search.fill('qqqq')
  await expect(page.getByText('No heading is called so, nor like it.')).toBeVisible()
  // What the note names can be gone to.
  await search.fill('weary')
  await page.getByRole('article').getByRole('button', { name: 'Drowsiness' }).first().click()
  await expect(page.getByRole('article', { name: 'Drowsiness' })).toBeVisible()
})

test('a later edition renames and retires: what it touches is told and mended', async ({ page, review }) => {
  await prepared(page, review)
  await page.goto(review.path('headings') + '?label=Drowsiness')
  await page.getByRole('button', { name: /^Add heading/ }).click()
  await page.goto(review.path('headings') + '?label=Exhaustion by Heat')
  await page.getByRole('button', { name: /^Add heading/ }).click()
  await saved(page)
  const second = first.filter((c) => c.id !== '5').map((c) => (c.id === '3' ? { ...c, label: 'Heat Exhaustion' } : c.id === '2' ? { ...c, terms: [...c.terms!, 'drowsiness'] } : c))
  await page.goto(review.path('samples'))
  await page.getByLabel('Drop a SKOS vocabulary here').setInputFiles({ name: 'Field terms.nt', mimeType: 'text/plain', buffer: skos(second) })
  await page.getByRole('button', { name: 'What has changed' }).click()
  const changes = page.getByRole('dialog', { name: 'What this edition of Field terms says otherwise' })
  await expect(changes.getByRole('region', { name: 'Renamed' })).toContainText('Exhaustion by Heat → Heat Exhaustion')
  await expect(changes.getByRole('region', { name: 'Given no more' })).toContainText('Drowsiness, now Exhaustion of Field Hands')
  await accessible(page)
  await changes.getByRole('button', { name: 'Close' }).click()

  await page.getByRole('link', { name: 'Blocks' }).click()
  await page.getByRole('button', { name: /now called Heat Exhaustion/ }).click()
  await page.getByText('Write Heat Exhaustion', { exact: true }).click()
  await expect(page.getByRole('switch', { name: 'Heat Exhaustion is searched', exact: true })).toBeVisible()
  await page.getByRole('button', { name: /an entry term of Exhaustion of Field Hands/ }).click()
  await page.getByText('Write Exhaustion of Field Hands', { exact: true }).click()
  await expect(page.getByRole('switch', { name: 'Exhaustion of Field Hands is searched', exact: true })).toBeVisible()
})

test('seeds are looked up together, figures are asked at the source, and losses open', async ({ page }) => {
  const id = await demoReview(page)
  await page.goto(`/reviews/${id}/headings`)
  await page.getByRole('button', { name: 'Seeds of B' }).click()
  await expect(leads(page).first()).toContainText(/of 4 seeds/)
  await accessible(page)
  await page.goto(`/reviews/${id}/headings?label=Agricultural Labor Force`)
  await page.getByRole('radio', { name: 'Almagre' }).check()
  await expect(page.getByText(/^counted \d/)).toBeVisible()
  await page.getByRole('region', { name: 'Take it' }).getByRole('button', { name: /^−335/ }).click()
  await expect(page.getByRole('dialog')).toContainText('335')
})

test('the vocabulary of another source is looked at over what was drawn there, and says what stands for what', async ({ page }) => {
  await page.goto(`/reviews/${await demoReview(page)}/headings`)
  const which = page.getByRole('combobox', { name: 'Vocabulary that headings are looked at in' })
  await expect(which).toHaveText(/Almagre Headings.*Surco Thesaurus/s)
  await which.selectOption({ label: 'Surco Thesaurus' })
  await expect(page.getByText('Type a lay word to find headings of Surco Thesaurus.')).toBeVisible()
  await page.getByRole('searchbox').fill('cutting gangs')
  const heading = page.getByRole('article', { name: 'Cutting gangs' })
  await expect(heading).toContainText('Figures over rest and shade')
  const figure = node(page, /Cutting gangs/).first().getByRole('button', { name: /^\d+$/ }).first()
  const records = await figure.textContent()
  await figure.click()
  await expect(page.getByText(`1 of ${records!.trim()}`)).toBeVisible()
  await accessible(page)
  await page.keyboard.press('Escape')

  // It is asked in place of a heading of one's own, and gives it words; it is no term itself, and is not parked.
  const stands = page.getByRole('region', { name: 'Stands for' })
  await stands.getByRole('combobox').selectOption({ label: 'A · Agricultural Labor Force' })
  await expect(stands.getByRole('listitem')).toContainText('Agricultural Labor Force')
  await expect(leads(page).filter({ hasText: 'Cutting gangs' })).toContainText('A')
  await expect(heading.getByRole('button', { name: /^Add .* to A$/ })).toBeVisible()
  await expect(heading.getByRole('button', { name: 'Park' })).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('region', { name: 'Stands for' }).getByRole('listitem')).toContainText('Agricultural Labor Force')
  await stands.getByRole('button', { name: 'Take Cutting gangs off Agricultural Labor Force' }).click()
  await expect(stands.getByRole('listitem')).toHaveCount(0)
  await accessible(page)
  await which.selectOption({ label: 'Almagre Headings' })
  await page.getByRole('searchbox').fill('agricultural labor force')
  await expect(page.getByRole('article', { name: 'Agricultural Labor Force' })).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Take it' })).toBeVisible()

  // What may mean the same in another vocabulary is a click away.
  const others = page.getByRole('region', { name: 'In other vocabularies' })
  const name = (await others.getByRole('button').first().locator('em').evaluate((em) => em.previousSibling!.textContent))!.trim()
  await others.getByRole('button').first().click()
  await expect(page.getByRole('article', { name })).toBeVisible()
  await expect(which).toHaveValue(/\d+/)
  await expect(page.getByRole('region', { name: 'Stands for' })).toBeVisible()
  await others.getByRole('button', { name: 'Agricultural Labor Force' }).click()
  await expect(page.getByRole('heading', { name: 'Take it' })).toBeVisible()

  // What a qualifier may not stand behind is marked; in Harvest stands what covers most.
  await expect(page.getByText('It allows causes, methods, prevention, statistics.')).toBeVisible()
  await page.getByRole('link', { name: 'Harvest', exact: true }).click()
  await page.getByRole('tab', { name: /Headings/ }).click()
  // Qualifiers by heading, and headings by qualifier.
  await expect(page.getByRole('heading', { name: 'Its qualifiers' })).toBeVisible()
  await page.getByRole('tab', { name: /Qualifiers/ }).click()
  await expect(page.getByRole('heading', { name: 'Headings it stands behind' })).toBeVisible()
  const behind = page.getByRole('button', { name: /^Agricultural Labor Force \d+$/ })
  const many = (await behind.textContent())!.match(/\d+/)![0]
  await behind.click()
  await expect(page.getByText(`1 of ${many}`)).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('tab', { name: /Headings/ }).click()
  await expect(page.getByText('With all below it, covers most:')).toContainText('Agricultural Labor Force')
  await page.getByRole('link', { name: 'Agricultural Labor Force' }).click()
  await expect(page.getByRole('article', { name: 'Agricultural Labor Force' })).toBeVisible()
})
