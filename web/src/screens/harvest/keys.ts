import { computed, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { offer } from '@/state/actions'
import { dropReasons } from '@/state/decide'
import { useLooked } from '@/state/looked'
import { useReview } from '@/state/review'
import type { Panel, useDeciding } from './deciding'

/** One line of what keys do: how it is shown, what it is called, and what it does where it is one key. */
export interface Key {
  shown: string
  name: string
  key?: string
  /** It is about the item that is selected, and found in Ctrl K by its name. */
  item?: boolean
  go?: () => unknown
}

const moves: Record<string, number> = {
  ArrowDown: 1,
  ArrowUp: -1,
  PageDown: 15,
  PageUp: -15,
  Home: -Infinity,
  End: Infinity,
}

/** The keys of Harvest in one list: the help shows it, Ctrl K finds it by name, and pressing a key reads it. */
export function useHarvestKeys(
  deciding: ReturnType<typeof useDeciding>,
  on: {
    decides: Ref<boolean>
    panel: Ref<Panel | undefined>
    records: () => void
    filter: () => void
    help: () => void
  },
) {
  const { t } = useI18n()
  const review = useReview()
  const looked = useLooked()
  const { selected, dropping, move, addTo, addSuiting, park, drop, back } = deciding
  const { panel } = on

  const all = computed<Key[]>(() => {
    const name = (what: string) => t(`keysHelp.${what}`)
    const decisions: Key[] = [
      { shown: '1 … 9', name: name('add') },
      { shown: 'Space', key: ' ', item: true, name: name('suits'), go: addSuiting },
      { shown: 'N', key: 'n', item: true, name: name('concept'), go: () => panel.value?.name() },
      { shown: 'Shift ↑ ↓', name: name('several') },
      { shown: 'P', key: 'p', item: true, name: name('park'), go: park },
      {
        shown: 'D',
        key: 'd',
        item: true,
        name: name('drop'),
        go: () => (dropping.value = !!selected.value),
      },
      { shown: 'Z', key: 'z', item: true, name: name('back'), go: back },
      { shown: 'T', key: 't', item: true, name: name('stems'), go: () => panel.value?.truncate() },
      { shown: 'O', key: 'o', name: name('anew'), go: () => looked.anew() },
      { shown: 'A', key: 'a', item: true, name: name('alike'), go: () => panel.value?.alike() },
    ]
    return [
      { shown: '↑ ↓', name: name('move') },
      ...(on.decides.value ? decisions : []),
      { shown: '/', key: '/', name: name('filter'), go: on.filter },
      { shown: 'Enter', key: 'Enter', item: true, name: name('records'), go: on.records },
      { shown: 'Home End', name: name('ends') },
      { shown: 'Ctrl Z', name: name('undo') },
      { shown: 'Ctrl Shift Z', name: name('redo') },
      { shown: '?', key: '?', name: name('help'), go: on.help },
    ]
  })

  function onKey(e: KeyboardEvent) {
    if (e.ctrlKey || e.metaKey || e.altKey) return
    if (dropping.value) {
      const reason = dropReasons[Number(e.key) - 1]
      if (!reason && e.key !== 'Enter' && e.key !== 'Escape') return
      e.preventDefault()
      if (e.key === 'Escape') dropping.value = false
      else drop(reason ?? '')
      return
    }
    const key = e.key.length === 1 ? e.key.toLowerCase() : e.key
    const by = moves[key]
    const act = by
      ? () => move(by, e.shiftKey)
      : on.decides.value && /^[1-9]$/.test(key)
        ? () => addTo(review.document.blocks[Number(key) - 1])
        : all.value.find((k) => k.key === key)?.go
    if (!act) return
    e.preventDefault()
    act()
  }

  // The same is found by its name.
  offer(() => {
    if (!selected.value) return []
    const of = (what: string) => t('palette.ofItem', { what, item: selected.value!.item })
    const blocks = on.decides.value ? review.document.blocks.slice(0, 9) : []
    return [
      ...blocks.map((b, i) => ({
        name: of(t('act.addTo', { block: b.name })),
        hint: String(i + 1),
        go: () => addTo(b),
      })),
      ...all.value.flatMap((k) =>
        k.go && k.key !== 'o'
          ? [
              {
                name: k.item ? of(k.name) : t('palette.harvest', { what: k.name }),
                hint: k.shown,
                go: k.go,
              },
            ]
          : [],
      ),
      ...(
        [
          ['next', '↓', 1],
          ['previous', '↑', -1],
          ['first', 'Home', -Infinity],
          ['last', 'End', Infinity],
        ] as const
      ).map(([name, hint, by]) => ({ name: t(`palette.go.${name}`), hint, go: () => move(by) })),
    ]
  })

  return { all, onKey }
}
