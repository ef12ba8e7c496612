import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Block, type RoughConcept } from '@/api/client'
import { figures } from '@/figures'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

const mostWords = 200 // of a concept that is drawn
const records = 2000

/** Draws records that a block's own words did not choose: by the other concepts alone or, where there is none, at random. */
export function useDrawFree(block: () => Block) {
  const { t } = useI18n()
  const review = useReview()
  const sources = useSources()
  const problem = useProblem()
  const failed = ref('')
  const begun = ref<number>()

  const sampleDraw = computed(() => sources.draws.find((x) => x.sample === review.sample?.id))
  const source = computed(
    () =>
      sources.on.find((s) => s.id === sampleDraw.value?.source) ??
      sources.on.find((s) => s.id === review.look.source) ??
      sources.on[0],
  )
  const once = useOnce()
  const concepts = computed<RoughConcept[]>(() =>
    review.document.blocks
      .filter((b) => b.id !== block().id && b.searched && !b.negated)
      .map((b) => ({ name: b.name, block: b.id, words: wordsOf(b) }))
      .filter((c) => c.words.length),
  )
  const draw = computed(() => sources.draws.find((x) => x.id === begun.value))

  async function begin() {
    failed.value = ''
    if (!source.value) return
    try {
      // What is looked at stays: a new sample is looked at only where nobody chose one.
      const { sample, against, rest, set } = review.look
      await review.lookAt({ source: review.look.source, sample, against, rest, set })
      const names = concepts.value.map((c) => c.name).join(', ')
      const body = {
        name: concepts.value.length
          ? t('free.name', { blocks: names, source: source.value.name })
          : t('draw.anythingName', { source: source.value.name }),
        sources: [source.value.id],
        concepts: concepts.value,
        each: false,
        how: 'random' as const,
        atMost: records,
        seed: 1,
      }
      const [made] = await once(
        (headers) =>
          ask(
            api.POST('/api/reviews/{review}/draws', {
              params: { path: { review: review.id } },
              headers,
              body,
            }),
          ),
        body,
      )
      begun.value = made.id
      sources.fresh(figures.draws)
    } catch (error) {
      failed.value = problem(error)
    }
  }

  return { source, concepts, draw, begin, failed }
}

/** The words of a concept by which it is drawn: those of its block that are switched on, and its seeds. */
function wordsOf(b: Block): string[] {
  const terms = b.terms.filter((x) => x.on && x.kind === 'text' && x.text).map((x) => x.text!)
  return [...new Set([...terms, ...b.seeds])].slice(0, mostWords)
}
