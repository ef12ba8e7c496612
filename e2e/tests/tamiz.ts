import { AxeBuilder } from '@axe-core/playwright'
import { test as base, expect, type Page } from '@playwright/test'
import { execFile, spawn, type ChildProcess } from 'node:child_process'
import { mkdtemp, rm, chmod } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { promisify } from 'node:util'

const program = resolve(import.meta.dirname, '../../bin/tamiz')

/** A program that runs, with the address it printed. */
export interface Running {
  address: string
  stop: () => Promise<void>
}

/** Starts the program and waits for the address on its first line. */
export async function run(args: string[], env: Record<string, string> = {}): Promise<Running> {
  const child: ChildProcess = spawn(program, args, { env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] })
  let said = ''
  const address = await new Promise<string>((found, failed) => {
    const look = (data: Buffer) => {
      said += data.toString()
      const at = /((?:http|postgres):\/\/\S+)\n/.exec(said)
      if (at) found(at[1])
    }
    child.stdout!.on('data', look)
    child.stderr!.on('data', (data: Buffer) => (said += data.toString()))
    child.on('exit', (code) => failed(new Error(`tamiz ${args.join(' ')} ended with ${code}:\n${said}`)))
  })
  child.removeAllListeners('exit')
  return {
    address,
    stop: () =>
      new Promise((done) => {
        if (child.exitCode !== null) return done()
        child.on('exit', () => done())
        child.kill('SIGTERM')
      }),
  }
}

/** A folder of its own, which whom the database runs as can pass. */
export async function folder(): Promise<string> {
  const dir = await mkdtemp(join(tmpdir(), 'tamiz-e2e-'))
  await chmod(dir, 0o755)
  return dir
}

/**
 * Each worker has a program of its own with the demo reviews, and each test a review to work in. A file of walks that names itself in `own` begins
 * with the demo reviews as they were laid out, whatever other files did to theirs: which of them ran before depends on how fast the machine is.
 */
export const test = base.extend<{ review: { id: number; path: (screen: string) => string } }, { own: string; tamiz: string }>({
  own: ['', { scope: 'worker', option: true }],
  tamiz: [
    // eslint-disable-next-line @typescript-eslint/no-unused-vars
    async ({ own }, use) => {
      const dir = await folder()
      await promisify(execFile)('cp', ['-a', `${process.env.TAMIZ_LAID_OUT}/.`, dir]) // with the owner that the database wants
      const demo = await run(['demo', '--dir', dir, '--listen', '127.0.0.1:0'], { TAMIZ_DATABASE_URL: '' })
      await use(demo.address)
      await demo.stop()
      await rm(dir, { recursive: true, force: true })
    },
    { scope: 'worker', timeout: 600_000 },
  ],
  baseURL: async ({ tamiz }, use) => use(tamiz),
  review: async ({ request }, use) => {
    const made = await (await request.post('/api/reviews', { data: { name: `Review of ${test.info().title}`.slice(0, 190) } })).json()
    await use({ id: made.id, path: (screen) => `/reviews/${made.id}/${screen}` })
  },
})

export { expect }

interface Look {
  source?: number
  sample?: number
  against?: number
  rest: boolean
}

/** What the demo review of this worker is looked at as it was laid out. */
let laidOut: Look | undefined

/** The demo review, half done, looked at as it was laid out: what a walk before it looked at is none of its business. */
export async function demoReview(page: Page): Promise<number> {
  const reviews: { id: number; name: string }[] = await (await page.request.get('/api/reviews')).json()
  const id = reviews.find((r) => r.name === 'Heat and kidneys in farm crews')!.id
  const look: Look = (await (await page.request.get(`/api/reviews/${id}`)).json()).look
  laidOut ??= look
  const { source, sample, against, rest } = laidOut
  await page.request.post(`/api/reviews/${id}/looks`, { data: { source, sample, against, rest } })
  return id
}

/** Nothing that a machine can see stands in the way of those who do not see, hear or point. */
export async function accessible(page: Page) {
  // There are no frames: all is looked at in the page itself, which takes a fraction of the time.
  const found = await new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] }).analyze()
  expect(found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([])
}

/** A RIS file of records that say these titles. */
export function ris(...records: { title: string; abstract?: string; keywords?: string[]; year?: number }[]): Buffer {
  return Buffer.from(
    records
      .map((r, i) =>
        [
          'TY  - JOUR', `AN  - E${i + 1}`, `TI  - ${r.title}`, 'AU  - Velkana, Temi', `PY  - ${r.year ?? 2014 + (i % 9)}`, ...(r.abstract ? [`AB  - ${r.abstract}`] : []),
          ...(r.keywords ?? []).map((k) => `KW  - ${k}`), 'LA  - eng', 'M3  - Journal Article', 'ER  - ', '',
        ].join('\r\n'),
      )
      .join('\r\n'),
  )
}

/** Brings in a file with the button of the screen that is open. */
export async function bring(page: Page, name: string, buffer: Buffer) {
  await page.getByLabel(/files of (records|key studies) here/).setInputFiles({ name, mimeType: 'text/plain', buffer })
}

/** Everything that was done is saved. */
export async function saved(page: Page) {
  await expect(page.getByRole('banner').getByText(/^Saved \d/)).toBeVisible()
}

/** The number that a text says, whatever stands around it. */
export const number = (text: string | null) => Number((text ?? '').replace(/[^\d]/g, ''))

/** Begins the first concept of an empty review, and goes to its block. */
export async function begin(page: Page, question: string, name: string) {
  await page.goto(question)
  await page.getByRole('button', { name: 'Add a concept' }).click()
  await page.getByLabel('Name of concept A').fill(name)
  await page.getByLabel('Name of concept A').press('Enter')
  await page.getByRole('link', { name: 'Blocks' }).click()
}

/** Adds a line to block A, and waits until it stands there. */
export async function add(page: Page, term: string) {
  await page.getByLabel('Add a term to A').fill(term)
  await page.getByLabel('Add a term to A').press('Enter')
  await expect(page.getByRole('switch', { name: `${term} is searched` })).toBeVisible()
}
