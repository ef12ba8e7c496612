import walks from './playwright.config'

/** Speeds of screens, printed: no test, and no part of the tests. */
export default { ...walks, testDir: 'bench', testMatch: '*.bench.ts', workers: 1, use: { ...walks.use, trace: 'off' as const }, timeout: 240_000, reporter: [['./bench/table.ts']] }
