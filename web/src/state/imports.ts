import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, ask, CallError, problemOf, type FileAnswer, type Import } from '@/api/client'
import { newId } from './edits'
import { useReview } from './review'

/** A file on its way to the program. */
export interface Upload {
  id: number
  kind: Import['kind']
  file: File
  request: string // by which it is known when it is sent again
  sent: number
  error?: CallError
  stop?: () => void // while it is on its way
}

/** Files that are brought in: first over the wire, then read by the program. */
export const useImports = defineStore('imports', () => {
  const review = useReview()
  const uploads = ref<Upload[]>([])
  const reading = computed(() =>
    [...review.imports.values()].filter((i) => i.state === 'waiting' || i.state === 'reading'),
  )
  /** Files that have to be explained before they can be read. */
  const asking = computed(() => [...review.imports.values()].filter((i) => i.state === 'asking'))
  const failed = computed(() =>
    [...review.imports.values()].filter((i) => i.state === 'failed' && !seen.value.has(i.id)),
  )
  const seen = ref(new Set<number>())
  let count = 0

  function bring(files: Iterable<File>, kind: Import['kind']) {
    for (const file of files) send({ id: ++count, kind, file, request: newId(), sent: 0 }, false)
  }

  // fetch cannot tell how much of a file has been sent.
  function send(upload: Upload, again: boolean) {
    uploads.value.push(upload)
    const u = uploads.value.at(-1)!
    const call = new XMLHttpRequest()
    const query = new URLSearchParams({
      kind: u.kind,
      name: u.file.name,
      ...(again ? { again: 'true' } : {}),
    })
    call.open('POST', `/api/reviews/${review.id}/imports?${query}`)
    call.setRequestHeader('Content-Type', 'application/octet-stream')
    call.setRequestHeader('Tamiz-Request', u.request)
    call.upload.onprogress = (e) => (u.sent = e.loaded)
    call.onload = () => {
      let body: unknown
      try {
        body = JSON.parse(call.responseText)
      } catch {
        body = undefined
      }
      if (call.status !== 202) {
        u.error = new CallError(problemOf(body, call.status))
        return
      }
      drop(u)
      const i = body as Import
      review.imports.set(i.id, i)
      void review.watchImport(i.id)
    }
    call.onabort = () => drop(u)
    u.stop = () => call.abort()
    call.onerror = () => (u.error = new CallError({ type: 'broken-off', title: '', status: 0 }))
    call.send(u.file)
  }

  function drop(u: Upload) {
    uploads.value = uploads.value.filter((x) => x.id !== u.id)
  }

  function again(u: Upload) {
    drop(u)
    send({ id: ++count, kind: u.kind, file: u.file, request: u.request, sent: 0 }, true)
  }

  /** Says what was asked of a file; it is then read on. */
  async function answer(i: Import, said: FileAnswer) {
    const next = await ask(
      api.POST('/api/imports/{import}/question', {
        params: { path: { import: i.id } },
        body: said,
      }),
    )
    review.imports.set(next.id, next)
  }

  /** Leaves a file out that is asked about. */
  async function giveUp(i: Import) {
    await ask(api.DELETE('/api/imports/{import}', { params: { path: { import: i.id } } }))
    await review.watchImport(i.id)
  }

  function dismiss(i: Import) {
    seen.value.add(i.id)
  }

  return { uploads, reading, asking, failed, bring, drop, again, answer, giveUp, dismiss }
})
