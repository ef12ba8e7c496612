import type { Browser, Page } from '@playwright/test'
import { accessible, bring, expect, ris, saved, test } from './tamiz'

/** Somebody at a browser of their own. */
async function person(browser: Browser, baseURL: string | undefined, name: string): Promise<Page> {
  const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 }, locale: 'en-GB' })
  await context.addInitScript((who) => localStorage.setItem('tamiz-who', who), name)
  return context.newPage()
}

async function add(page: Page, term: string, block = 'A') {
  await page.getByLabel(`Add a term to ${block}`).fill(term)
  await page.getByLabel(`Add a term to ${block}`).press('Enter')
  await expect(row(page, term)).toBeVisible()
}

const row = (page: Page, term: string) => page.getByRole('row', { name: term })

test('two people work on one review: each looks at something else, and takes back their own', async ({ browser, baseURL, review }) => {
  const ines = await person(browser, baseURL, 'Inés')
  const bo = await person(browser, baseURL, 'Bo')

  // Inés begins: a concept, and two samples.
  await ines.goto(review.path('question'))
  await ines.getByRole('button', { name: 'Add a concept' }).click()
  await saved(ines)
  await ines.goto(review.path('samples'))
  await bring(ines, 'first.ris', ris({ title: 'Crews in the heat' }, { title: 'Crews at rest' }, { title: 'Crews and shade' }))
  await bring(ines, 'second.ris', ris({ title: 'Mills at night' }, { title: 'Mills by day' }))
  await ines.getByLabel('Look at first', { exact: true }).check()

  // Bo comes with a link of hers, sees what she sees, and then looks at something else: her screen stays.
  await ines.goto(review.path('harvest'))
  await expect(ines.getByRole('option', { name: /crews/ })).toBeVisible()
  await expect(ines).toHaveURL(/look=\w+/)
  await bo.goto(ines.url())
  await expect(bo.getByRole('option', { name: /crews/ })).toBeVisible()
  await bo.getByRole('button', { name: /What is looked at/ }).click()
  await bo.getByRole('option', { name: /^second/ }).or(bo.getByRole('listitem').filter({ hasText: 'second' })).or(bo.getByText('second', { exact: true })).first().click()
  await expect(bo.getByRole('option', { name: /mills/ })).toBeVisible()
  await expect(ines.getByRole('option', { name: /crews/ })).toBeVisible()
  expect(new URL(bo.url()).searchParams.get('look')).not.toBe(new URL(ines.url()).searchParams.get('look'))
  await bo.reload()
  await expect(bo.getByRole('option', { name: /mills/ })).toBeVisible()

  // Both add to the one block; each takes back their own.
  await ines.goto(review.path('blocks'))
  await bo.goto(review.path('blocks'))
  await add(ines, 'crew*')
  await expect(row(bo, 'crew*')).toBeVisible()
  await add(bo, 'mill*')
  await expect(row(ines, 'mill*')).toBeVisible()
  await ines.getByRole('heading', { level: 1 }).click()
  await ines.keyboard.press('Control+z')
  for (const window of [ines, bo]) {
    await expect(row(window, 'crew*')).toHaveCount(0)
    await expect(row(window, 'mill*')).toBeVisible()
  }
  await ines.keyboard.press('Control+Shift+z')
  for (const window of [ines, bo]) await expect(row(window, 'crew*')).toBeVisible()

  // Bo is cut off and goes on; so does Inés. When he is back, both have both.
  await bo.context().setOffline(true)
  await add(bo, 'night shift*')
  await add(ines, 'shade*')
  await expect(row(ines, 'night shift*')).toHaveCount(0)
  await bo.context().setOffline(false)
  for (const window of [ines, bo]) for (const term of ['crew*', 'mill*', 'night shift*', 'shade*']) await expect(row(window, term)).toBeVisible()

  // Both change the same term while Bo is cut off: he is asked.
  await bo.context().setOffline(true)
  await bo.getByRole('switch', { name: /mill\*/ }).click()
  await ines.getByRole('button', { name: 'Remove mill*' }).click()
  await expect(row(ines, 'mill*')).toHaveCount(0)
  await saved(ines)
  await bo.context().setOffline(false)
  const choice = bo.getByRole('dialog', { name: 'Changed by two people at once' })
  await expect(choice).toBeVisible()
  await expect(choice.getByRole('row', { name: /term “mill\*”/ })).toContainText('taken out')
  await accessible(bo)
  await choice.getByRole('button', { name: 'Keep yours' }).click()
  for (const window of [ines, bo]) await expect(row(window, 'mill*')).toBeVisible()

  // What Bo did to it since stands in the way of putting it back as it was.
  await ines.getByRole('heading', { level: 1 }).click()
  await ines.keyboard.press('Control+z')
  await expect(ines.getByText(/Not taken back: since then someone changed .*term “mill\*” of A/)).toBeVisible()
  await ines.context().close()
  await bo.context().close()
})
