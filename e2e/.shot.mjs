import { chromium } from 'playwright-core'
const [,, base, spec] = process.argv
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] })
for (const s of JSON.parse(spec)) {
  const p = await b.newPage({ viewport: { width: s.w ?? 1280, height: s.h ?? 800 } })
  p.on('pageerror', (e) => console.log('ERR', e.message))
  await p.goto(base + s.url)
  await p.waitForTimeout(s.wait ?? 2500)
  for (const a of s.do ?? []) {
    if (a.click) await p.getByRole(a.role ?? 'button', { name: a.click }).first().click().catch((e) => console.log('no click', a.click, e.message.slice(0, 120)))
    if (a.key) await p.keyboard.press(a.key)
    if (a.type) await p.keyboard.type(a.type)
    if (a.fill) await p.getByLabel(a.fill).first().fill(a.with).catch((e) => console.log('no fill', a.fill, e.message.slice(0, 120)))
    await p.waitForTimeout(a.wait ?? 500)
  }
  await p.screenshot({ path: s.out })
  await p.close()
}
await b.close()
