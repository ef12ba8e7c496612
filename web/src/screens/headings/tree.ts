import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch, type Ref } from 'vue'
import type { HeadingPlace, HeadingWhole } from '@/api/client'
import { figures, keyOf } from '@/figures'
import { useReview } from '@/state/review'
import type { How } from './choice'
import { useThrough } from './through'

/** A row of the places of a heading: what stands above it, the heading itself, what stands below, or how much more. */
export interface Row {
  key: string
  label: string
  depth: number
  node?: HeadingPlace
  own?: boolean // the heading itself
  above?: string[] // what stands above it, from the top
  below?: boolean // of it, so that it can be ticked
  more?: { of: string; n: number }
}

/** The places of a heading as rows, which open and close, and of which those below it are ticked. */
export function useTree(
  whole: Ref<HeadingWhole>,
  how: Ref<How>,
  without: Ref<string[]>,
  reset: () => void,
) {
  const review = useReview()
  const queries = useQueryClient()
  const through = useThrough()

  const firstBelow = 12 // headings below one, before the others are asked for

  const children = ref(new Map<string, HeadingPlace[]>())
  const opened = ref(new Set<string>()) // by place
  const all = ref(new Set<string>()) // places of which all below show
  watch(
    () => whole.value.heading,
    () => {
      children.value = new Map()
      opened.value = new Set()
      all.value = new Set()
      reset()
    },
  )
  const byLabel = computed(() => {
    const out = new Map(whole.value.nodes.map((x) => [x.label, x]))
    for (const list of children.value.values()) for (const x of list) out.set(x.label, x)
    return out
  })

  const rows = computed<Row[]>(() => {
    const out: Row[] = []
    whole.value.places.forEach((path, place) => {
      // What stands further above is told beside the heading right above: a row each would leave no place for the rest.
      const above = path.slice(0, -1)
      if (above.length)
        out.push({
          key: `${place} ${above.join(' › ')}`,
          label: above[above.length - 1],
          depth: 0,
          node: byLabel.value.get(above[above.length - 1]),
          above: above.slice(0, -1),
        })
      const label = path[path.length - 1]
      const depth = above.length ? 1 : 0
      out.push({ key: path.join(' › '), label, depth, node: byLabel.value.get(label), own: true })
      const key = path.join(' › ')
      const kids = whole.value.children
      // Below it is told once, at its first place, unless another is opened.
      if (kids.length && (place === 0) !== opened.value.has(key)) below(out, key, kids, depth + 1)
    })
    return out
  })
  function below(out: Row[], under: string, labels: string[], depth: number) {
    const most =
      all.value.has(under) || labels.length <= firstBelow + 1 ? labels.length : firstBelow
    for (const label of labels.slice(0, most)) {
      const key = `${under} › ${label}`
      out.push({ key, label, depth, node: byLabel.value.get(label), below: true })
      const kids = children.value.get(label)
      if (opened.value.has(key) && kids)
        below(
          out,
          key,
          kids.map((x) => x.label),
          depth + 1,
        )
    }
    if (most < labels.length)
      out.push({
        key: `${under} …`,
        label: '',
        depth,
        more: { of: under, n: labels.length - most },
      })
  }
  const firstKey = computed(() => whole.value.places[0]?.join(' › '))
  const isOpen = (r: Row) =>
    r.own
      ? (r.key === firstKey.value) !== opened.value.has(r.key)
      : r.below
        ? opened.value.has(r.key)
        : undefined
  const foldable = (r: Row) => (r.own || r.below) && (r.node?.narrower ?? 0) > 0

  async function fold(r: Row) {
    if (!foldable(r)) return
    const next = new Set(opened.value)
    if (!next.delete(r.key)) {
      if (!r.own && !children.value.has(r.label)) {
        const args = { through: through.asked, label: r.label }
        const list = await queries.fetchQuery({
          queryKey: keyOf(figures.headingsBelow, review, args),
          queryFn: () => figures.headingsBelow.ask(args, review.asked),
        })
        children.value = new Map(children.value).set(r.label, list)
      }
      next.add(r.key)
    }
    opened.value = next
  }

  /** What is left out is left out with what is come to through it alone; a row under one that is left out shows so. */
  const outAbove = (r: Row) =>
    without.value.some((w) => r.key.split(' › ').slice(0, -1).includes(w))
  const ticked = (r: Row) =>
    how.value !== 'alone' &&
    !(how.value === 'some' && (without.value.includes(r.label) || outAbove(r)))
  function tick(r: Row) {
    if (!r.below || outAbove(r)) return
    if (how.value === 'alone') {
      // From alone, ticking one takes it and leaves out what stands beside it.
      how.value = 'some'
      without.value = whole.value.children.filter((c) => c !== r.label)
      return
    }
    const next = without.value.includes(r.label)
      ? without.value.filter((w) => w !== r.label)
      : [...without.value, r.label]
    without.value = next
    how.value = next.length ? 'some' : 'all'
  }

  function showAll(under: string) {
    all.value = new Set(all.value).add(under)
  }

  return { rows, isOpen, foldable, fold, outAbove, ticked, tick, showAll }
}
