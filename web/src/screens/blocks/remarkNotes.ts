import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Bench, Block, Edit, Remark, Term } from '@/api/client'
import { useReader } from '@/parts/reader'
import { useDecide } from '@/state/decide'
import { newTerm, termText, useReview } from '@/state/review'

/** What can be done about a remark. */
export interface Mend {
  label: string
  edits: Edit[]
}
interface Note {
  kind: string
  text: string
  more?: string
  mends: Mend[]
  show?: () => void
}

/** Of what is to be said of a term, the words and the mends. */
export function useRemarkNotes(props: {
  block: Block
  term: Term
  figures?: Bench['blocks'][number]['terms'][number]
  remarks: Remark[]
}) {
  const { t, n } = useI18n()
  const review = useReview()
  const reader = useReader()
  const { addEdits } = useDecide()

  const switchOff = (): Edit => ({
    op: 'patchTerm',
    block: props.block.id,
    id: props.term.id,
    patch: { on: false },
  })
  const adding = (texts: string[]) =>
    texts.flatMap((text) =>
      addEdits(props.block, newTerm({ kind: 'text', text, field: props.term.field ?? 'text' })),
    )

  /** What the bench says of a term that is switched on. */
  const plain = computed<Note[]>(() => {
    const f = props.figures
    if (!f || !props.term.on) return []
    const quiet = props.term.quiet ?? []
    const off = [{ label: t('remark.switchOff'), edits: [switchOff()] }]
    const all: Note[] = []
    // What became of it, or what it may be meant for, is a remark of its own.
    if (f.unknown && props.remarks.some((r) => r.kind.startsWith('heading'))) return []
    if (f.unknown) all.push({ kind: 'unknown', text: t('blocks.unknown'), mends: off })
    else if (f.records === 0) all.push({ kind: 'zero', text: t('blocks.zero'), mends: off })
    else if (f.addsNothing)
      all.push({
        kind: 'addsNothing',
        // A term may make the block grow and bring nothing that a later one does not: the block is the same without it, yet not
        // without both.
        text: f.inside?.length
          ? t('blocks.inside', { term: f.inside[0] })
          : f.step
            ? t('blocks.othersToo')
            : t('blocks.addsNothing'),
        mends: f.step ? [] : off,
      })
    return all.filter((x) => !quiet.includes(x.kind))
  })

  const list = (r: Remark, most = 3) =>
    r.items
      .slice(0, most)
      .map((i) => i.text)
      .join(', ') + (r.items.length > most ? ' …' : '')

  function noted(r: Remark): Note {
    switch (r.kind) {
      default:
        return noteOfHeading(r)
      case 'misspelt':
        return {
          kind: r.kind,
          text: t('remark.misspelt', { word: r.items[0].text }),
          mends: r.items.slice(0, 4).map((i) => ({
            label: t('remark.replace', { word: i.text, n: n(i.records, 'whole') }, i.records),
            edits: [
              {
                op: 'patchTerm',
                block: props.block.id,
                id: props.term.id,
                patch: { text: i.text },
              },
            ],
          })),
        }
      case 'writing':
        return {
          kind: r.kind,
          text: t('remark.writing', { n: n(r.records, 'whole') }, r.records),
          more: list(r, 6),
          mends: [
            {
              label: t('remark.addAll', { words: list(r) }),
              edits: adding(r.items.map((i) => i.text)),
            },
          ],
        }
      case 'suits': {
        const other = review.document.blocks.find((b) => b.id === r.block)
        return {
          kind: r.kind,
          text: t('remark.suits', { block: other?.name ?? '?' }),
          mends: other
            ? [
                {
                  label: t('remark.move', { block: other.name }),
                  edits: [
                    { op: 'removeTerm', block: props.block.id, id: props.term.id },
                    ...addEdits(other, newTerm({ ...props.term, quiet: undefined })),
                  ],
                },
              ]
            : [],
        }
      }
      case 'near': {
        const near = newTerm({ ...r.near!, kind: 'near' })
        return {
          kind: r.kind,
          text: t('remark.near', { term: termText(near), n: n(r.records, 'whole') }, r.records),
          mends: [
            {
              label: t('remark.add', { term: termText(near) }),
              edits: addEdits(props.block, near),
            },
          ],
          show: () =>
            reader.list(
              { kind: 'term', term: near, block: props.block.id, only: true },
              termText(near),
            ),
        }
      }
      case 'meanings':
        return {
          kind: r.kind,
          text: t('remark.meanings', { words: list(r, 2) }),
          more: r.items.map((i) => `${i.text}: ${n(i.records, 'whole')}`).join(', '),
          mends: r.items.slice(0, 4).map((i) => ({
            label: t('remark.insteadOf', { word: i.text, term: termText(props.term) }),
            edits: [switchOff(), ...adding([i.text])],
          })),
        }
      case 'drags':
        return {
          kind: r.kind,
          text: t('remark.drags', { words: list(r), n: n(r.records, 'whole') }, r.records),
          mends: [
            {
              label: t('remark.writeOut', { words: (r.belong ?? []).slice(0, 4).join(', ') }),
              edits: [switchOff(), ...adding(r.belong ?? [])],
            },
          ],
        }
    }
  }

  /** What is to be said of a heading term, each with its mend. */
  function noteOfHeading(r: Remark): Note {
    const heading = r.headings?.[0] ?? ''
    const off = { label: t('remark.switchOff'), edits: [switchOff()] }
    const patch = (label: string, parts: Partial<Term>): Mend => ({
      label,
      edits: [{ op: 'patchTerm', block: props.block.id, id: props.term.id, patch: parts }],
    })
    const put = (r.headings ?? []).map((h) =>
      patch(t('remark.headingPut', { heading: h }), { heading: h }),
    )
    const says = (text: string, mends: Mend[], show?: () => void): Note => ({
      kind: r.kind,
      text,
      mends,
      show,
    })
    switch (r.kind) {
      case 'headingUnknown':
        return says(heading ? t('remark.headingMeant', { heading }) : t('remark.headingUnknown'), [
          ...put,
          off,
        ])
      case 'headingRetired':
        return says(
          heading ? t('remark.headingRetiredNow', { heading }) : t('remark.headingRetired'),
          [...put, off],
        )
      case 'headingWithin':
        return says(t('remark.headingWithin', { heading }), [off])
      case 'headingFlat':
        return says(t('remark.headingFlat'), [patch(t('remark.headingAlone'), { narrower: false })])
      case 'headingRefused': {
        const refused = r.headings ?? []
        return says(t('remark.headingRefused', { qualifiers: refused.join(', ') }), [
          patch(t('remark.headingWithout', { qualifiers: refused.join(', ') }), {
            qualifiers: props.term.qualifiers?.filter((q) => !refused.includes(q)) ?? [],
          }),
        ])
      }
      case 'headingCentral':
        return says(t('remark.headingCentral', { n: r.keys ?? 0 }, r.keys ?? 0), [
          patch(t('remark.headingAny'), { central: false }),
        ])
      case 'headingAdded': {
        const headings = (r.headings ?? []).join(', ')
        return says(t('remark.headingAdded', { headings }), [
          patch(t('remark.headingLeave', { headings }), { without: r.mend?.without ?? [] }),
        ])
      }
      case 'headingBefore': {
        const older = newTerm({ ...r.mend!, kind: 'heading', id: '', on: true })
        return says(
          t(
            'remark.headingBefore',
            { heading: termText(older), n: n(r.records, 'whole') },
            r.records,
          ),
          [
            {
              label: t('remark.add', { term: termText(older) }),
              edits: addEdits(props.block, older),
            },
          ],
          () => reader.list({ kind: 'term', term: older }, termText(older)),
        )
      }
      default: // renamed, or an entry term
        return says(t(`remark.${r.kind}`, { heading }), put)
    }
  }

  return computed(() => [...plain.value, ...props.remarks.map(noted)])
}
