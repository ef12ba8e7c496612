import { computed } from 'vue'
import { api, ask, type Block, type KeptBlock } from '@/api/client'
import { figures, useFigure, useFresh } from '@/figures'
import { newId } from './edits'
import { useOnce } from './request'
import { useReview } from './review'

/** The blocks that are kept for reuse, and what can be done with them. */
export function useKept() {
  const review = useReview()
  const list = useFigure(figures.keptBlocks, () => null)
  const all = computed(() => list.data.value ?? [])
  /** The newest version of each. */
  const newest = computed(() =>
    all.value.filter((k, i) => all.value.findIndex((x) => x.name === k.name) === i),
  )
  /** The version that is newer than the one a block was taken from. */
  const later = (b: Block) =>
    newest.value.find((k) => k.name === b.origin?.name && k.version > b.origin.version)

  const once = useOnce()
  const again = useFresh()
  const fresh = () => again(figures.keptBlocks)
  async function keep(block: string, name: string, note: string): Promise<KeptBlock> {
    const body = { block, name, note }
    const kept = await once(
      (headers) =>
        ask(api.POST('/api/reviews/{review}/kept-blocks', { params: review.asked, headers, body })),
      body,
    )
    fresh()
    return kept
  }
  async function forget(name: string, back = false) {
    await ask(api.DELETE('/api/kept-blocks', { params: { query: { name, back } } }))
    fresh()
  }

  const copied = (k: KeptBlock) => k.block.terms.map((x) => ({ ...x, id: newId() }))
  const said = (k: KeptBlock) => ({ name: k.name, version: String(k.version) })
  /** Takes a copy, as a block of its own; returns its id. */
  function take(k: KeptBlock): string {
    const id = newId()
    review.change(
      { key: 'takeKept', params: said(k) },
      {
        edits: [
          {
            op: 'addBlock',
            block: {
              ...k.block,
              id,
              name: '',
              seeds: k.block.seeds,
              terms: copied(k),
              origin: { name: k.name, version: k.version },
            },
          },
        ],
      },
    )
    return id
  }
  /** Puts the lines of a newer version in the place of those of a block. */
  function renew(b: Block, k: KeptBlock) {
    review.change(
      { key: 'renewKept', params: { ...said(k), block: b.name } },
      {
        edits: [
          ...b.terms.map((x) => ({ op: 'removeTerm' as const, block: b.id, id: x.id })),
          ...copied(k).map((term) => ({ op: 'addTerm' as const, block: b.id, term })),
          {
            op: 'patchBlock',
            id: b.id,
            patch: {
              origin: { name: k.name, version: k.version },
              wordings: k.block.wordings ?? [],
            },
          },
        ],
      },
    )
  }

  return { all, newest, later, keep, forget, take, renew }
}
