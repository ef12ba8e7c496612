import { useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { type Tally, type Term } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { screens as places } from '@/router'
import { useActions } from '@/state/actions'
import { useLooked } from '@/state/looked'
import { termText, useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import { useSteps } from '@/state/steps'
import { useReader } from './reader'

/** Something that is found by its name, and how one gets there. */
export interface Found {
  kind: 'screen' | 'action' | 'term' | 'heading' | 'candidate' | 'record'
  name: string
  hint?: string
  go: () => unknown
}

/** What the words that are typed find: of what is at hand at once, of headings and records once they have settled. */
export function usePalette(open: Ref<boolean>, typed: Ref<string>, settled: Ref<string>) {
  const { t, n } = useI18n()
  const router = useRouter()
  const queries = useQueryClient()
  const review = useReview()
  const looked = useLooked()
  const sources = useSources()
  const steps = useSteps()
  const here = useActions()
  const reader = useReader()

  const words = computed(() => typed.value.trim().toLowerCase().split(/\s+/).filter(Boolean))
  const fits = (name: string) => {
    const low = name.toLowerCase()
    return words.value.every((w) => low.includes(w))
  }
  const to = (name: string, query?: Record<string, string>) =>
    router.push({ name, params: { review: review.id }, query })

  const screens = computed<Found[]>(() =>
    ([...places, 'studies', 'shelf', 'sources'] as const).map((s) => ({
      kind: 'screen',
      name: t(`screen.${s}`),
      go: () => to(s),
    })),
  )
  const actions = computed<Found[]>(() => [
    ...here.offered().map((a): Found => ({ kind: 'action', ...a })),
    { kind: 'action', name: t('steps.undo'), hint: 'Ctrl Z', go: () => steps.undo() },
    { kind: 'action', name: t('steps.redo'), hint: 'Ctrl Shift Z', go: () => steps.redo() },
    {
      kind: 'action',
      name: t('looked.anew'),
      hint: 'O',
      go: async () => {
        await to('harvest')
        await looked.anew()
      },
    },
    ...(sources.chosen
      ? [{ kind: 'action' as const, name: t('counted.again'), go: () => sources.countAgain() }]
      : []),
    ...looked.offered.map((s): Found => ({
      kind: 'action',
      name: t('palette.look', { name: looked.name(s) }),
      go: async () => {
        await looked.at(s)
        await to('harvest')
      },
    })),
    ...review.samples.map((s): Found => ({
      kind: 'action',
      name: t('palette.look', { name: s.name }),
      go: async () => {
        await review.lookAt({ source: review.look.source, sample: s.id, rest: true })
        await to('harvest')
      },
    })),
  ])
  const terms = computed<Found[]>(() =>
    review.document.blocks.flatMap((b) =>
      b.terms.map((x): Found => ({
        kind: 'term',
        name: termText(x),
        hint: t('palette.addHere', { block: b.name }),
        go: () => to('blocks'),
      })),
    ),
  )
  /** Words of the tallies that are at hand. */
  const candidates = computed<Found[]>(() => {
    if (!words.value.length) return []
    const tallies = queries
      .getQueriesData<Tally>({ queryKey: [figures.tally.name, review.id] })
      .flatMap(([, data]) => (data?.facet === 'words' ? [data] : []))
    const rows = tallies.at(-1)?.rows ?? []
    const out: Found[] = []
    for (const row of rows) {
      if (out.length >= 8) break
      const item = [row.item, ...(row.forms?.map((f) => f.item) ?? [])].find(fits)
      if (item)
        out.push({
          kind: 'candidate',
          name: row.item,
          hint: n(row.records, 'whole'),
          go: () => to('harvest', { facet: 'words', item: row.item }),
        })
    }
    return out
  })

  const asked = computed(() => settled.value.trim())
  const tried = useFigure(figures.term, () => ({ typed: asked.value }), {
    enabled: () => open.value && asked.value.length > 1 && asked.value.length < 200,
    once: true,
  })
  const headings = computed<Found[]>(() =>
    (asked.value === typed.value.trim() ? (tried.data.value?.headings ?? []) : []).map((h) => ({
      kind: 'heading',
      name: h.label,
      hint: n(h.records, 'whole'),
      go: () => to('headings', { label: h.label }),
    })),
  )
  const records = useFigure(
    figures.records,
    () => ({
      of: { kind: 'term' as const, term: tried.data.value?.term as Term },
      at: 0,
      limit: 6,
    }),
    {
      enabled: () =>
        open.value &&
        review.sample !== undefined &&
        tried.data.value?.term !== undefined &&
        asked.value.length > 2,
      once: true,
    },
  )
  const titles = computed<Found[]>(() =>
    (asked.value === typed.value.trim() && asked.value.length > 2
      ? (records.data.value?.records ?? [])
      : []
    ).map((r) => ({
      kind: 'record',
      name: r.title || t('record.noTitle'),
      hint: [r.byline, r.year || undefined].filter(Boolean).join(' '),
      go: () => reader.one(r.id, r.title),
    })),
  )

  const found = computed<Found[]>(() => [
    ...(words.value.length ? terms.value.filter((f) => fits(f.name)).slice(0, 8) : []),
    ...headings.value,
    ...candidates.value,
    ...screens.value.filter((f) => fits(f.name)),
    ...actions.value.filter((f) => fits(f.name)).slice(0, words.value.length ? 30 : 12),
    ...titles.value,
  ])

  return { found }
}
