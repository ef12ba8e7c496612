import { readFile } from 'node:fs/promises'
import { accessible, bring, expect, ris, test } from './tamiz'

test('files that cannot be taken say why, and leave what was there', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  const good = ris({ title: 'Heat in crews' })
  await bring(page, 'good.ris', good)
  await expect(page.getByRole('radio', { name: 'Look at good' })).toBeVisible()
  for (const [name, file, said] of [
    ['empty.ris', Buffer.alloc(0), 'The file is empty'],
    ['page.ris', Buffer.from('<html><body>Log in</body></html>'), 'The file holds no records: it is a web page. Nothing was brought in.'],
    ['sheet.csv', Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0, 0, 0, 0]), 'save it as CSV'],
    ['good again.ris', good, 'was brought in before, as “good”'],
  ] as const) {
    await bring(page, name, file)
    await expect(page.getByRole('alert').filter({ hasText: said })).toBeVisible()
    await accessible(page)
    if (!said.includes('before')) await page.getByRole('button', { name: 'Dismiss' }).click()
  }
  await expect(page.getByRole('radio')).toHaveCount(1)
  await page.getByRole('button', { name: 'Bring in again' }).click()
  await expect(page.getByRole('radio')).toHaveCount(2)
})

test('an upload broken off in the middle leaves nothing and can be tried again', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  await page.route('**/imports?**', (route) => route.abort('connectionreset'), { times: 1 })
  await bring(page, 'rough.ris', ris({ title: 'Heat in crews' }))
  await expect(page.getByRole('alert')).toContainText('broke off on its way')
  await page.getByRole('button', { name: 'Bring in again' }).click()
  await expect(page.getByRole('radio', { name: 'Look at rough' })).toBeVisible()
})

test('what was skipped can be read line by line, and saved', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  const odd = Buffer.concat([Buffer.from('Exported today\r\n'), ris({ title: 'Heat' }), Buffer.from('TY  - JOUR\rER  - \rTY  - JOUR\nAB  - caf'), Buffer.from([0xe9]), Buffer.from('\nPY  - in press\nER  - \n')])
  await bring(page, 'odd.ris', odd)
  await page.getByRole('button', { name: '2 skipped' }).click()
  const report = page.getByRole('dialog')
  for (const line of ['read as Windows-1252', 'Exported today', 'nothing but its type', 'Record without title', 'in press']) await expect(report).toContainText(line)
  await accessible(page)
  const download = page.waitForEvent('download')
  await report.getByRole('link', { name: 'Save as text' }).click()
  const text = await readFile(await (await download).path(), 'utf8')
  expect(text).toContain('odd.ris: 2 records brought in, 2 skipped')
  expect(text).toContain('line 1: text before the first record')
})

test('a sample is chosen, compared, renamed, deleted and taken back', async ({ page, review }) => {
  await page.goto(review.path('samples'))
  for (const [name, n] of [['one.ris', 3], ['two.ris', 5]] as const) {
    await bring(page, name, ris(...Array.from({ length: n }, (_, i) => ({ title: `Heat ${name} ${i}` }))))
    await expect(page.getByRole('button', { name: String(n), exact: true })).toBeVisible()
  }
  await page.getByRole('radio', { name: 'Look at two' }).check()
  await expect(page.getByLabel('two is compared with')).toHaveValue('rest')
  // What is looked at stands in the address, which follows once the answer is read: then it outlives a reload.
  const [answer] = await Promise.all([page.waitForResponse((r) => r.url().endsWith('/looks') && r.ok() && !!r.request().postData()?.includes('against')), page.getByLabel('two is compared with').selectOption('one')])
  const { name } = (await answer.json()) as { name: string }
  await expect(page).toHaveURL(new RegExp(`look=${name}`))
  await page.reload()
  await expect(page.getByLabel('two is compared with')).toHaveValue(/\d+/)
  await page.getByRole('link', { name: 'Harvest', exact: true }).click()
  await expect(page.getByRole('button', { name: 'one 3' })).toBeVisible()
  await page.getByRole('link', { name: 'Samples' }).click()
  await page.getByRole('button', { name: 'Rename one' }).click()
  await page.getByLabel('Name of the sample').fill('the first')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('radio', { name: 'Look at the first' })).toBeVisible()
  await page.getByRole('button', { name: 'Delete the first' }).click()
  await expect(page.getByRole('radio')).toHaveCount(1)
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('radio')).toHaveCount(2)
})

test('at 200 % zoom and on a narrow window nothing is out of reach', async ({ page }) => {
  for (const size of [{ width: 640, height: 400 }, { width: 1024, height: 700 }, { width: 2560, height: 1300 }]) {
    await page.setViewportSize(size)
    for (const screen of ['question', 'samples', 'harvest', 'headings', 'blocks', 'coverage', 'strategy', 'shelf']) {
      await page.goto(`/reviews/2/${screen}`)
      await expect(page.getByRole('complementary', { name: 'Bench' })).toBeAttached()
      await expect(page.getByTestId('caught')).toBeAttached()
      const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
      expect(wide, `${screen} at ${size.width}`).toBeLessThanOrEqual(0)
    }
  }
})
