import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { api, ask, type Version } from '@/api/client'
import { figures } from '@/figures'
import { useAct } from '@/state/act'
import { useBench } from '@/state/bench'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'
import { useReview } from '@/state/review'
import { useSteps } from '@/state/steps'
import { useVersionName } from './versions'

/** What is done with versions: kept, named, counted, gone back to, begun from, forgotten. */
export function useVersionActs() {
  const { t } = useI18n()
  const review = useReview()
  const bench = useBench()
  const notes = useNotes()
  const steps = useSteps()
  const problem = useProblem()
  const named = useVersionName()
  const router = useRouter()

  const act = useAct(figures.versions)
  const keeping = ref(false)
  function keep(name: string, note: string) {
    keeping.value = false
    void act(
      ask(
        api.POST('/api/reviews/{review}/versions', {
          params: { path: { review: review.id } },
          body: { name, note },
        }),
      ),
    )
  }
  const naming = ref<number>()
  const of = (v: Version) => ({ params: { path: { review: review.id, version: v.id } } })
  function rename(v: Version, name: string, note: string) {
    naming.value = undefined
    void act(
      ask(
        api.PATCH('/api/reviews/{review}/versions/{version}', { ...of(v), body: { name, note } }),
      ),
    )
  }
  const count = (v: Version, source: number) =>
    act(
      ask(
        api.POST('/api/reviews/{review}/versions/{version}/counted', {
          params: { ...of(v).params, query: { source } },
        }),
      ),
    )
  const once = useOnce()
  const branching = ref<number>()
  async function branch(v: Version, name: string) {
    branching.value = undefined
    try {
      const made = await once(
        (headers) =>
          ask(
            api.POST('/api/reviews/{review}/versions/{version}/line', {
              ...of(v),
              headers,
              body: { name },
            }),
          ),
        { of: v.id, name },
      )
      await router.push({ name: 'blocks', params: { review: made.id } })
    } catch (error) {
      notes.say({ text: problem(error), wrong: true })
    }
  }
  function forget(v: Version, back = false) {
    const { path } = of(v).params
    void act(
      ask(
        api.DELETE('/api/reviews/{review}/versions/{version}', {
          params: { path, query: { back } },
        }),
      ),
    )
    if (!back)
      notes.say({
        text: t('versions.forgot', { name: named(v) }),
        action: { label: t('steps.undo'), run: () => forget(v, true) },
      })
  }
  async function back(v: Version) {
    bench.rest(undefined)
    await act(
      review.act(() => ask(api.POST('/api/reviews/{review}/versions/{version}/back', of(v)))),
    )
    notes.say({
      text: t('versions.wentBack', { name: named(v) }),
      action: { label: t('steps.undo'), run: steps.undo },
    })
  }

  return { keeping, keep, naming, rename, count, branching, branch, forget, back }
}
