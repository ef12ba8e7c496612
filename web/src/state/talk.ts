import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Note } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useAct } from './act'
import { useNotes } from './notes'
import { useOnce } from './request'
import { useReview } from './review'

/** What a note is on: by its id, as it is called now. */
export type About = Pick<Note, 'kind' | 'about' | 'name'>

/** What people note on anything, to be settled: each is open until somebody says it is settled. */
export const useTalk = defineStore('talk', () => {
  const { t } = useI18n()
  const review = useReview()
  const notes = useNotes()

  /** What is being noted on; nothing, where nobody is writing. */
  const on = ref<About>()
  const asked = useFigure(figures.comments, () => null)
  const all = computed(() => asked.data.value ?? [])
  const open = computed(() => all.value.filter((x) => !x.settled))

  const done = useAct(figures.comments)
  const once = useOnce()

  const put = (note: About & { words: string }) =>
    done(
      once(
        (headers) =>
          ask(
            api.POST('/api/reviews/{review}/notes', {
              params: { path: { review: review.id } },
              headers,
              body: note,
            }),
          ),
        note,
      ),
    )
  const one = (note: Note) => ({ params: { path: { review: review.id, note: note.id! } } })
  const settle = (note: Note, settled: boolean) =>
    done(ask(api.PATCH('/api/reviews/{review}/notes/{note}', { ...one(note), body: { settled } })))
  async function drop(note: Note, back = false) {
    const { path } = one(note).params
    const gone = await done(
      ask(api.DELETE('/api/reviews/{review}/notes/{note}', { params: { path, query: { back } } })),
    )
    if (gone && !back)
      notes.say({
        text: t('talk.dropped'),
        action: { label: t('steps.undo'), run: () => void drop(note, true) },
      })
  }

  return { on, asked, all, open, put, settle, drop }
})
