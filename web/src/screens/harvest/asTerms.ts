import { refDebounced } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'
import { type TallyItem, type Term } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useRefusal } from '@/parts/tried'
import { useDecide } from '@/state/decide'
import { newTerm } from '@/state/review'
import { useSources } from '@/state/sources'
import type { Candidate } from './candidates'

/** As which terms an item is added: as it stands, as it was typed anew, its ticked forms, truncated, or near each other. */
export function useAsTerms(candidate: Ref<Candidate>, item: Ref<TallyItem | undefined>) {
  const said = useRefusal()
  const { termOf } = useDecide()

  const typed = ref('')
  const ticked = ref<string[]>([])
  const truncated = ref(false)
  const out = ref<string[]>([]) // words that a stem must not find
  const near = ref(false)
  // The same item may have other forms in another set of records.
  watch(
    () => [candidate.value.key, ...(candidate.value.forms ?? [])].join('\n'),
    () => {
      typed.value = candidate.value.item
      ticked.value = candidate.value.forms ?? []
      truncated.value = false
      out.value = []
      near.value = false
    },
    { immediate: true },
  )
  const settled = refDebounced(typed, 150)
  const edited = computed(() => typed.value.trim() !== candidate.value.item)
  const sources = useSources()
  const words = computed(() =>
    item.value?.stems.length ? item.value.stems.flatMap((s) => s.forms) : [],
  )
  // A sample holds few of the words that begin alike: the index of the source knows all.
  const atSource = useFigure(
    figures.stems,
    () => ({ source: sources.chosen?.id ?? 0, forms: words.value }),
    {
      enabled: () =>
        !!sources.chosen?.map.scan &&
        words.value.length > 0 &&
        words.value.length <= 50 &&
        words.value.every((w) => !w.includes(' ')),
      holds: Infinity,
      once: true,
    },
  )
  const judgedAt = computed(() => (atSource.data.value?.length ? sources.chosen?.name : undefined))
  const stems = computed(() =>
    atSource.data.value?.length ? atSource.data.value : (item.value?.stems ?? []),
  )

  const tried = useFigure(figures.term, () => ({ typed: settled.value }), {
    enabled: () => edited.value && candidate.value.facet !== 'headings',
  })
  const refused = computed(() =>
    edited.value && tried.data.value?.refused ? said(tried.data.value.refused) : '',
  )

  /** What is added: what was typed; or the forms that are ticked, truncated where that is wanted. */
  const texts = computed(() => {
    if (edited.value) return [typed.value.trim()].filter(Boolean)
    const forms = candidate.value.forms ? ticked.value : [candidate.value.item]
    if (!truncated.value) return forms
    // A stem that would find what is to be kept out is not used: its forms are listed instead.
    const used = stems.value.filter(
      (s) =>
        s.forms.some((f) => forms.includes(f)) &&
        !s.outside.some((o) => out.value.includes(o.word)),
    )
    return [
      ...used.map((s) => s.term),
      ...forms.filter((f) => !used.some((s) => s.forms.includes(f))),
    ]
  })
  const pair = computed(() => {
    const words = candidate.value.item.split(' ')
    return words.length === 2 && item.value?.ways?.some((w) => w.how === 'near') && !edited.value
      ? words
      : undefined
  })
  function terms(): Term[] {
    if (refused.value) return []
    if (near.value && pair.value)
      return [
        newTerm({
          kind: 'near',
          left: pair.value[0],
          right: pair.value[1],
          within: 3,
          field: 'text',
          from: termOf(candidate.value).from,
        }),
      ]
    return texts.value.map((text) => termOf(candidate.value, text))
  }
  function truncate() {
    if (stems.value.length && !edited.value) truncated.value = !truncated.value
  }
  /** Changes with what would be added, once it is typed. */
  const stamp = computed(() =>
    [edited.value ? settled.value : texts.value.join('\n'), refused.value, near.value].join('\0'),
  )

  return {
    typed,
    ticked,
    truncated,
    out,
    near,
    edited,
    stems,
    judgedAt,
    tried,
    refused,
    texts,
    pair,
    terms,
    truncate,
    stamp,
  }
}
