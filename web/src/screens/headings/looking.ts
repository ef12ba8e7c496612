import { refDebounced, useStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type Edit } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useBench } from '@/state/bench'
import { itemOf, useDecide } from '@/state/decide'
import { decisionKey, termText, useReview } from '@/state/review'
import { useChoice } from './choice'
import { useThrough } from './through'
import { labelKey } from '@/state/labelKey'

/** What is looked up and looked at on Headings, as the address says it, and what would be taken of it into which block. */
export function useLooking() {
  const review = useReview()
  const bench = useBench()
  const route = useRoute()
  const router = useRouter()
  const { decide } = useDecide()

  const typed = ref(String(route.query.word ?? ''))
  const settled = refDebounced(typed, 120)
  // A heading of another vocabulary waits until it is known which that is.
  const through = useThrough()
  through.wanted = Number(route.query.vocabulary) || undefined
  const named = String(route.query.label ?? '')
  const waits = through.wanted !== undefined && !through.other
  const label = ref(waits ? '' : named)
  const next = ref(waits ? named : '')
  const blockId = ref(String(route.query.block ?? ''))
  const language = useStorage('tamiz-heading-language', '')

  /** Which block each heading suits, as Harvest knows it. */
  const suits = useFigure(
    figures.suits,
    () => ({ facet: 'headings' as const, search: review.searchStamp }),
    { enabled: () => review.vocabulary !== undefined && review.sample !== undefined, keep: true },
  )
  const suited = computed(
    () => suits.data.value?.items.find((x) => labelKey(x.item) === labelKey(label.value))?.block,
  )
  /** The block that was chosen; else the one that has the heading, or that it suits, or the first. */
  const block = computed(() => {
    const blocks = review.document.blocks
    const has = (id?: string) => blocks.find((b) => b.id === id)
    const holds = review.kept.get(decisionKey('headings', labelKey(label.value)))?.[0]
    return (
      has(blockId.value) ??
      has(holds) ??
      has(suited.value) ??
      blocks.find((b) => b.searched && !b.negated) ??
      blocks[0]
    )
  })
  /** The seeds of a block, looked up together; a typed word goes before them. */
  const seeds = ref(!!route.query.seeds)
  const words = computed(() =>
    seeds.value ? (block.value?.seeds ?? []) : [settled.value.trim()].filter(Boolean),
  )
  watch(typed, (word) => word && (seeds.value = false))

  /** What was found before stays until there is more, but not what is of another vocabulary. */
  const ofTheSame = (before: readonly unknown[]) =>
    (before.at(-1) as { other?: number }).other === through.other?.id
  const found = useFigure(
    figures.headings,
    () => ({
      through: through.asked,
      other: through.other?.id,
      words: words.value.slice(0, 12),
      language: language.value || undefined,
      block: seeds.value ? block.value?.id : undefined,
    }),
    {
      enabled: () => through.vocabulary !== undefined && through.asked !== undefined,
      keep: ofTheSame,
    },
  )
  // The first that is found is looked at, unless another was chosen from what is found now.
  const chosen = ref(false)
  watch([words, language], () => (chosen.value = false))
  watch(
    () => found.data.value,
    (now) => {
      if (!chosen.value && words.value.length && now?.leads.length) label.value = now.leads[0].label
    },
  )

  const one = useFigure(
    figures.heading,
    () => ({
      through: through.asked,
      other: through.other?.id,
      label: label.value,
      block: block.value?.id,
      language: language.value || undefined,
    }),
    {
      enabled: () =>
        through.vocabulary !== undefined && through.asked !== undefined && label.value !== '',
      keep: ofTheSame,
      once: true,
    },
  )
  const whole = computed(() => (label.value ? one.data.value : undefined))
  const taking = useChoice(whole, block, () => through.other !== undefined)
  /** Looks at a heading of another vocabulary: the word that was typed for this one's goes. */
  function lookIn(vocabulary: number, heading: string) {
    typed.value = ''
    seeds.value = false
    next.value = heading
    through.wanted = vocabulary
  }
  // What is looked at in one vocabulary is nothing in another; a word stays.
  watch(
    () => through.other?.id,
    (now, before) => {
      if (now === before) return
      label.value = next.value
      chosen.value = next.value !== ''
      next.value = ''
    },
  )

  function look(at: string) {
    chosen.value = true
    label.value = at
  }
  watch([label, blockId, settled, seeds, () => through.other?.id], () => {
    if (route.name !== 'headings') return
    void router.replace({
      query: {
        ...(route.query.look ? { look: route.query.look } : {}),
        ...(settled.value.trim() && !seeds.value ? { word: settled.value.trim() } : {}),
        ...(label.value ? { label: label.value } : {}),
        ...(blockId.value ? { block: blockId.value } : {}),
        ...(through.other ? { vocabulary: String(through.other.id) } : {}),
        ...(seeds.value ? { seeds: '1' } : {}),
      },
    })
  })
  watch(
    () => route.query.label,
    (to) => {
      if (!to || String(to) === label.value) return
      const vocabulary = Number(route.query.vocabulary) || undefined
      if (vocabulary === through.other?.id) return look(String(to))
      next.value = String(to)
      through.wanted = vocabulary
    },
  )

  // What would be taken shows on the bench as it is chosen.
  const edits = computed(() => (block.value && whole.value ? taking.edits(block.value) : []))
  watch(
    edits,
    (now) =>
      bench.rest(
        now.length && block.value && whole.value
          ? {
              edits: now,
              label: `+ ${through.other ? termsOf(now) : whole.value.heading}`,
              block: block.value.id,
            }
          : undefined,
      ),
    { immediate: true },
  )
  onBeforeUnmount(() => bench.rest(undefined))

  function take(into = block.value) {
    if (!into || !whole.value) return
    const now = taking.edits(into)
    if (!now.length) return
    if (through.other) {
      const said = { term: termsOf(now), block: into.name }
      return review.change({ key: 'addTerm', params: said }, { edits: now })
    }
    const what = now.some((e) => e.op === 'patchTerm') ? 'changeHeading' : 'takeHeading'
    review.change(
      { key: what, params: { heading: whole.value.heading, block: into.name } },
      { edits: now },
    )
  }
  function park() {
    if (!whole.value || through.other) return
    decide([itemOf({ kind: 'heading', item: whole.value.heading })], 'parked')
  }

  function lookSeeds(of: string) {
    blockId.value = of
    typed.value = ''
    seeds.value = true
  }

  return {
    typed,
    words,
    seeds,
    label,
    blockId,
    language,
    block,
    found,
    one,
    whole,
    taking,
    edits,
    look,
    lookIn,
    lookSeeds,
    take,
    park,
  }
}

/** The terms that edits add, as they are written. */
const termsOf = (edits: Edit[]) =>
  edits.flatMap((e) => (e.op === 'addTerm' ? [termText(e.term)] : [])).join(', ')
