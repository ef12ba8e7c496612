import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { RecordSet } from '@/api/client'
import { termText, useReview } from './review'
import { useSources } from './sources'

/** What is looked at from above: the sample, or any set of the records of sample and contrast. */
export const useLooked = defineStore('looked', () => {
  const review = useReview()
  const sources = useSources()
  const { t, n } = useI18n()

  const set = computed(() => review.look.set)
  /** Counts how often the order was made anew: what stepped aside then stays there until the next time. */
  const ordered = ref({ revision: 0, times: 0 })
  const since = computed(() =>
    ordered.value.revision ? Math.max(0, review.revision - ordered.value.revision) : 0,
  )

  const letter = (id?: string) => review.document.blocks.find((b) => b.id === id)?.name ?? '?'

  /** What records around an item are called, where they are not those that hold it. */
  function aspect(s: RecordSet & { kind: 'aspect' }): string {
    switch (s.aspect) {
      case 'missing':
        return t('looked.missing', { facet: t(`facet.${s.facet}`) })
      case 'lost':
      case 'bare':
        return t(
          s.aspect === 'lost' && s.facet === 'years' ? 'looked.lostYears' : `looked.${s.aspect}`,
          { item: s.item ?? '' },
        )
    }
    return t(`looked.said.${s.aspect}`, { kind: t(`shape.kind.${s.item}`) })
  }

  /** A sample by its name; a part of one by the concepts that drew it. */
  function sample(s: RecordSet & { kind: 'sample' }): string {
    const of = review.samples.find((x) => x.id === s.sample)
    const part = sources.draws.find((d) => d.id === of?.draw)?.parts[s.part ?? -1]
    if (!of) return t('looked.records')
    return s.part === undefined
      ? of.name
      : t('looked.part', { sample: of.name, part: part ? partName(part) : s.part + 1 })
  }

  /** What drew a part. */
  const partName = (part: { concepts: { name: string }[] }): string =>
    part.concepts.map((c) => c.name).join(` ${t('draw.and')} `) || t('draw.anythingFrom')

  function name(s: RecordSet): string {
    switch (s.kind) {
      case 'any':
        return t('looked.any')
      case 'strategy':
        return t(s.beforeNot ? 'looked.beforeNot' : 'looked.strategy')
      case 'term':
        return t(s.only ? 'looked.only' : 'looked.term', { term: termText(s.term) })
      case 'limit':
        return t(s.away ? 'looked.away' : 'looked.limit', { what: t(`coverage.limit.${s.limit}`) })
      case 'block':
        if (s.away) return t('looked.away', { what: letter(s.block) })
        return t('looked.block', { block: letter(s.block) })
      case 'spot':
        return t('looked.spot', { block: letter(s.block) })
      case 'line':
        return t('looked.line')
      case 'lost':
        return t('prune.lostTitle', { n: s.terms.length, block: letter(s.block) }, s.terms.length)
      case 'item':
        return t('looked.item', { item: s.item, facet: t(`facet.${s.facet}`) })
      case 'aspect':
        return aspect(s)
      case 'within':
        return t('looked.within', { item: name(s.of), set: name(s.in) })
      case 'less':
        return t('looked.less', { of: name(s.of), less: name(s.less) })
      case 'team':
        return t('looked.team', { name: s.authors[0].split('|')[0] })
      case 'picked':
        return t('looked.ids', { n: n(s.ids.length, 'whole') }, s.ids.length)
      case 'shelf':
        return t('looked.shelf')
      case 'joined':
        return t('looked.joined')
      case 'sample':
        return sample(s)
      case 'all':
        return review.sample?.name ?? t('looked.records')
    }
  }

  /** The sets that the blocks offer by themselves. */
  const offered = computed<RecordSet[]>(() => {
    const searched = review.document.blocks.filter(
      (b) => b.searched && !b.negated && b.terms.some((x) => x.on),
    )
    return [
      ...(searched.length > 1 ? [{ kind: 'strategy' as const }] : []),
      ...(searched.length ? [{ kind: 'any' as const }] : []),
      ...searched.map((b) => ({ kind: 'block' as const, block: b.id })),
      ...(searched.length > 1 ? searched.map((b) => ({ kind: 'spot' as const, block: b.id })) : []),
    ]
  })

  /** A set as it shows in what is looked at now: an item's records are of that alone. */
  const inside = (s: RecordSet): RecordSet =>
    (s.kind === 'item' || s.kind === 'aspect') && set.value
      ? { kind: 'within', of: s, in: set.value }
      : s

  async function at(s: RecordSet | undefined) {
    const { source, sample, against, rest } = review.look
    await review.lookAt({ source, sample, against, rest, set: s })
    mark()
  }

  const mark = () => (ordered.value = { revision: review.revision, times: ordered.value.times + 1 })

  /** Makes the order anew by what the blocks find now. */
  async function anew() {
    await review.flush()
    if (set.value) await at(set.value)
    else mark()
  }

  return { set, name, partName, offered, inside, at, anew, mark, ordered, since }
})
