import { rm } from 'node:fs/promises'
import { folder, run } from './tamiz'

/** Lays the demo reviews out once; every program that is driven begins with a copy of that folder. */
export default async function layOut() {
  const dir = await folder()
  const demo = await run(['demo', '--dir', dir, '--listen', '127.0.0.1:0'], { TAMIZ_DATABASE_URL: '' })
  await demo.stop()
  process.env.TAMIZ_LAID_OUT = dir
  return () => rm(dir, { recursive: true, force: true })
}
