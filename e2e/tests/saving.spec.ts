import { createServer, connect, type Socket, type Server } from 'node:net'
import { rm } from 'node:fs/promises'
import { accessible, bring, demoReview, expect, folder, ris, run, saved, test } from './tamiz'

test.use({ own: 'saving' })

test('many steps are undone and made again, across a reload', async ({ page, review }) => {
  await page.goto(review.path('question'))
  await page.getByRole('button', { name: 'Add a concept' }).click()
  await page.getByLabel('Name of concept A').fill('Farm crews')
  await page.getByLabel('Name of concept A').press('Enter')
  await page.getByRole('link', { name: 'Blocks' }).click()
  for (const term of ['farmworker*', 'field hand*', '[Fluid Intake]', 'farm* ~3 crew*']) {
    await page.getByLabel('Add a term to A').fill(term)
    await page.getByLabel('Add a term to A').press('Enter')
  }
  const rows = page.getByRole('row').filter({ has: page.getByRole('switch') })
  await expect(rows).toHaveCount(4)
  // They stand in the order in which they were typed, however long one of them was looked up.
  await expect(page.getByRole('switch')).toHaveCount(4)
  for (const [i, term] of ['farmworker*', 'field hand*', 'Fluid Intake', 'farm* ~3 crew*'].entries()) await expect(page.getByRole('switch').nth(i)).toHaveAccessibleName(`${term} is searched`)
  await saved(page)
  await page.reload()
  await expect(rows).toHaveCount(4)
  await page.keyboard.press('Control+z')
  await expect(rows).toHaveCount(3)
  await expect(page.getByText(/Undone: .*crew\* added to A/)).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(rows).toHaveCount(2)
  await page.keyboard.press('Control+Shift+z')
  await expect(rows).toHaveCount(3)
  await page.getByRole('switch', { name: 'field hand* is searched' }).click()
  await expect(page.getByRole('switch', { name: 'field hand* is searched' })).not.toBeChecked()
  await page.getByRole('button', { name: 'Remove field hand*' }).click()
  await expect(rows).toHaveCount(2)
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click()
  await expect(rows).toHaveCount(3)
})

test('what is being typed stays when an answer comes in meanwhile', async ({ page, review }) => {
  await page.goto(review.path('question'))
  let answer = () => {}
  const typedMeanwhile = new Promise<void>((resolve) => (answer = resolve))
  await page.route('**/changes', async (route) => {
    await typedMeanwhile
    await route.continue()
  }, { times: 1 })
  await page.getByRole('button', { name: 'Add a concept' }).click()
  const name = page.getByLabel('Name of concept A')
  await name.fill('Farm crews')
  answer()
  await saved(page)
  await expect(name).toHaveValue('Farm crews')
  await name.press('Enter')
  await saved(page)
  await page.reload()
  await expect(name).toHaveValue('Farm crews')
})

test('a term that cannot be searched is refused in words', async ({ page, review }) => {
  await page.goto(review.path('question'))
  await page.getByRole('button', { name: 'Add a concept' }).click()
  await page.getByRole('link', { name: 'Blocks' }).click()
  const field = page.getByLabel('Add a term to A')
  for (const [typed, said] of [
    ['...', 'holds no word'],
    ['a*', 'would match too much'],
    ['heat ~0 rest', 'within 1 to 100'],
    ['x'.repeat(10_000), 'at most 1,000 characters'],
  ]) {
    await field.fill(typed)
    await field.press('Enter')
    await expect(page.getByText(said)).toBeVisible()
    await expect(field).toHaveValue(typed)
  }
  await expect(page.getByText('No terms yet')).toBeVisible()
})

test('two windows see each other and never lose a change', async ({ page, review, context }) => {
  await page.goto(review.path('question'))
  await page.getByRole('button', { name: 'Add a concept' }).click()
  await page.getByRole('button', { name: 'Add a concept' }).click()
  await saved(page)
  await page.goto(review.path('blocks'))
  const other = await context.newPage()
  await other.goto(review.path('blocks'))
  await expect(other.getByLabel('Add a term to A')).toBeVisible()

  await page.getByLabel('Add a term to A').fill('farmworker*')
  await page.getByLabel('Add a term to A').press('Enter')
  await expect(other.getByRole('row', { name: /farmworker\*/ })).toBeVisible()

  // The other window hears nothing for a while, and adds to the same block meanwhile: both stand there.
  await other.route('**/api/reviews/**', (route) => (route.request().method() === 'GET' ? route.abort() : route.continue()))
  await page.getByLabel('Add a term to A').fill('cane cutter*')
  await page.getByLabel('Add a term to A').press('Enter')
  await saved(page)
  await other.getByLabel('Add a term to A').fill('field hand*')
  await other.getByLabel('Add a term to A').press('Enter')
  await expect(page.getByRole('row', { name: /field hand\*/ })).toBeVisible()
  await other.unroute('**/api/reviews/**')
  for (const window of [page, other]) {
    for (const term of [/farmworker\*/, /cane cutter\*/, /field hand\*/]) await expect(window.getByRole('row', { name: term })).toBeVisible()
  }
})

test('what is done while the database is gone is kept and sent later', async ({ browser }) => {
  const dir = await folder()
  const database = await run(['database', '--dir', dir])
  const target = new URL(database.address)
  let open = true
  const sockets = new Set<Socket>()
  const between: Server = createServer((socket) => {
    if (!open) return void socket.destroy()
    const onward = connect(Number(target.port), target.hostname)
    for (const s of [socket, onward]) {
      sockets.add(s)
      s.on('error', () => s.destroy())
      s.on('close', () => sockets.delete(s))
    }
    socket.pipe(onward).pipe(socket)
  })
  await new Promise<void>((done) => between.listen(0, '127.0.0.1', done))
  const through = new URL(database.address)
  through.port = String((between.address() as { port: number }).port)
  const tamiz = await run(['serve', '--database-url', through.href, '--listen', '127.0.0.1:0'])
  const page = await browser.newPage({ baseURL: tamiz.address })
  try {
    const made = await (await page.request.post('/api/reviews', { data: { name: 'Through an outage' } })).json()
    await page.goto(`/reviews/${made.id}/question`)
    await page.getByRole('button', { name: 'Add a concept' }).click()
    await page.getByRole('link', { name: 'Blocks' }).click()
    await saved(page)

    open = false
    sockets.forEach((s) => s.destroy())
    await page.getByLabel('Add a term to A').fill('farmworker*')
    await page.getByLabel('Add a term to A').press('Enter')
    await expect(page.getByText('1 change is kept here and sent again')).toBeVisible()
    await page.getByLabel('Add a term to A').fill('field hand*')
    await page.getByLabel('Add a term to A').press('Enter')
    await expect(page.getByText('2 changes are kept here and sent again')).toBeVisible()
    await expect(page.getByRole('row', { name: /field hand\*/ })).toBeVisible()

    open = true
    await saved(page)
    await page.reload()
    await expect(page.getByRole('row', { name: /farmworker\*/ })).toBeVisible()
    await expect(page.getByRole('row', { name: /field hand\*/ })).toBeVisible()
  } finally {
    await page.close()
    await tamiz.stop()
    between.close()
    await database.stop()
    await rm(dir, { recursive: true, force: true })
  }
})

test('a sample deleted while it is looked at is said, and comes back with undo', async ({ page, review, context }) => {
  await page.goto(review.path('samples'))
  await bring(page, 'rough.ris', ris({ title: 'Heat in crews' }, { title: 'Rest in crews' }))
  await expect(page.getByRole('button', { name: '2', exact: true })).toBeVisible()
  const other = await context.newPage()
  await other.goto(review.path('harvest'))
  await expect(other.getByRole('option').first()).toBeVisible()
  await page.getByRole('button', { name: 'Delete rough' }).click()
  await expect(other.getByText('Nothing to harvest yet')).toBeVisible()
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click()
  await expect(other.getByRole('option').first()).toBeVisible()
})

test('reviews are renamed, deleted and taken back', async ({ page, review }) => {
  await page.goto('/')
  const name = `Review of ${test.info().title}`
  await page.getByRole('button', { name: `Rename ${name}` }).click()
  await page.getByLabel('Name of the review').fill('Shade in orchards')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Shade in orchards' })).toBeVisible()
  await accessible(page)
  await page.getByRole('button', { name: 'Delete Shade in orchards' }).click()
  await expect(page.getByRole('link', { name: 'Shade in orchards' })).toBeHidden()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await page.getByRole('link', { name: 'Shade in orchards' }).click()
  await expect(page).toHaveURL(new RegExp(`/reviews/${review.id}/question`))
  await page.goto('/reviews/999999/harvest')
  await expect(page.getByText('This review is not there')).toBeVisible()
})

test('the demo review has something true on every screen, without findings of axe', async ({ page }) => {
  const id = await demoReview(page)
  for (const [screen, text] of [['question', '28 known to belong'], ['samples', 'farm crews, rough'], ['harvest', 'Open candidates'], ['blocks', 'farmworker*'], ['coverage', 'What holds them back'], ['sources', 'Try it out']]) {
    await page.goto(`/reviews/${id}/${screen}`)
    await expect(page.getByText(text).first()).toBeVisible()
    await expect(page.getByTestId('caught')).toBeVisible()
    await accessible(page)
  }
})
