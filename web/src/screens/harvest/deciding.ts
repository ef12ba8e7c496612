import { computed, nextTick, ref, watch, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, Suit, Term } from '@/api/client'
import { useDecide } from '@/state/decide'
import { useNotes } from '@/state/notes'
import { useReview } from '@/state/review'
import type { Candidate } from './candidates'

/** What the list and the panel beside it can be told to do. */
export interface Listing {
  focus: () => void
}
export interface Panel {
  terms: () => Term[]
  name: () => void
  truncate: () => void
  alike: () => void
}

/** What is selected in the list of candidates, and what is decided about it: after each decision the next open one is. */
export function useDeciding(of: {
  all: Ref<Candidate[]>
  shown: Ref<Candidate[]>
  suits: Ref<Map<string, Suit>>
  list: Ref<Listing | undefined>
  panel: Ref<Panel | undefined>
}) {
  const { all, shown, suits, list, panel } = of
  const review = useReview()
  const notes = useNotes()
  const { t } = useI18n()
  const { add, addConcept, decide, takeBack, termOf } = useDecide()

  const selectedKey = ref<string>()
  const selected = computed(() => all.value.find((c) => c.key === selectedKey.value))
  const dropping = ref(false)

  // What suits no block clearly goes where the last went.
  const lastBlock = ref<string>()
  const suit = computed(() => selected.value && suits.value.get(selected.value.item))
  const suiting = computed(() => review.document.blocks.find((b) => b.id === suit.value?.block))
  const target = computed(
    () =>
      suiting.value ??
      review.document.blocks.find((b) => b.id === lastBlock.value) ??
      review.document.blocks.find((b) => b.searched) ??
      review.document.blocks[0],
  )

  watch(
    shown,
    (rows) => {
      if (!rows.length) selectedKey.value = undefined
      else if (!selected.value || !rows.some((r) => r.key === selectedKey.value))
        selectedKey.value = rows[0].key
    },
    { immediate: true },
  )

  // Several: all from where the selection began to where it is now.
  const anchor = ref<string>()
  const chosen = computed<Candidate[]>(() => {
    if (!selected.value) return []
    const from = shown.value.findIndex((c) => c.key === anchor.value)
    const to = shown.value.findIndex((c) => c.key === selectedKey.value)
    if (from < 0 || to < 0 || from === to) return [selected.value]
    return shown.value.slice(Math.min(from, to), Math.max(from, to) + 1)
  })
  const marked = computed(
    () => new Set(chosen.value.length > 1 ? chosen.value.map((c) => c.key) : []),
  )

  function select(c: Candidate | undefined, further = false) {
    if (!c) return
    anchor.value = further ? (anchor.value ?? selectedKey.value) : undefined
    selectedKey.value = c.key
    list.value?.focus()
  }

  function move(by: number, further = false) {
    const i = shown.value.findIndex((c) => c.key === selectedKey.value)
    select(shown.value[Math.min(Math.max(i + by, 0), shown.value.length - 1)], further)
  }

  /** Makes a decision and goes on to the next open item, as the list stood before it. */
  function then(decision: () => void) {
    const rows = shown.value
    const on = new Set(chosen.value.map((c) => c.key))
    const last = rows.findLastIndex((c) => on.has(c.key))
    const next =
      rows.slice(last + 1).find((c) => c.state === 'open') ??
      rows.slice(0, last).findLast((c) => c.state === 'open' && !on.has(c.key))
    dropping.value = false
    decision()
    anchor.value = undefined
    if (next) selectedKey.value = next.key
    void nextTick(() => list.value?.focus())
  }

  /** The terms that what is selected becomes: of one item as the panel has it, of several all their forms. */
  function terms(): Term[] {
    if (chosen.value.length < 2) return panel.value?.terms() ?? []
    return chosen.value.flatMap((c) => (c.forms ?? [c.item]).map((form) => termOf(c, form)))
  }

  function addTo(b: Block | undefined) {
    const terms_ = terms()
    if (!selected.value || !terms_.length) return
    if (!b) return panel.value?.name()
    lastBlock.value = b.id
    const items = chosen.value
    then(() => add(b, terms_, items))
  }

  /** Takes what is selected into the block that it suits; several go each its own way, as one change. */
  function addSuiting() {
    if (chosen.value.length < 2)
      return suiting.value ? addTo(suiting.value) : notes.say({ text: t('suit.none') })
    const blocks = new Set(chosen.value.map((c) => suits.value.get(c.item)?.block))
    const only =
      blocks.size === 1 ? review.document.blocks.find((b) => b.id === [...blocks][0]) : undefined
    if (only) addTo(only)
    else notes.say({ text: t('suit.none') })
  }

  /** Makes what is selected the first words of a concept of its own. */
  function begin(name: string) {
    const first = terms()
    if (!selected.value || !first.length) return
    const items = chosen.value
    then(() => (lastBlock.value = addConcept(name, first, items)))
  }

  const park = () => selected.value && then(() => decide(chosen.value, 'parked'))
  const drop = (reason: string) =>
    selected.value && then(() => decide(chosen.value, 'dropped', reason))
  const back = () => chosen.value.some((c) => c.state !== 'open') && takeBack(chosen.value)

  return {
    selectedKey,
    selected,
    chosen,
    marked,
    anchor,
    dropping,
    suit,
    target,
    select,
    move,
    addTo,
    addSuiting,
    begin,
    park,
    drop,
    back,
  }
}
