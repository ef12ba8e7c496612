import { chromium } from '@playwright/test'
const [, , base, ...paths] = process.argv
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
page.on('console', (m) => m.type() === 'error' && console.log('console:', m.text()))
page.on('pageerror', (e) => console.log('pageerror:', e.message))
for (const p of paths) {
  const [path, name] = p.split('=')
  await page.goto(base + path)
  await page.waitForLoadState('networkidle').catch(() => {})
  await page.waitForTimeout(900)
  await page.screenshot({ path: `/tmp/shots/${name}.png` })
}
await browser.close()
