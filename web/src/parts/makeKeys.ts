import { ref, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { figures } from '@/figures'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import { useJudging } from './judging'

/** Makes records that were judged relevant key studies. */
export function useMakeKeys(relevant: Ref<{ id: number }[]>) {
  const { t } = useI18n()
  const review = useReview()
  const sources = useSources()
  const judging = useJudging()
  const notes = useNotes()
  const problem = useProblem()
  const taking = ref(false)
  async function take() {
    taking.value = true
    try {
      const ids = relevant.value.map((r) => r.id)
      await ask(
        api.POST('/api/reviews/{review}/key-studies', {
          params: { path: { review: review.id } },
          body: { records: ids, way: 'judged', origin: judging.title.slice(0, 200) },
        }),
      )
      await review.refresh()
      sources.fresh(figures.holdings)
      notes.say({ text: t('judge.madeKeys', { n: ids.length }, ids.length) })
    } catch (error) {
      notes.say({ text: problem(error), wrong: true })
    } finally {
      taking.value = false
    }
  }

  return { taking, take }
}
