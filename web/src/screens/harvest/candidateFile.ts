import Papa from 'papaparse'
import type { Facet, NewDecision, ReviewDocument, Sample, Term } from '@/api/client'
import { marked, unmarked } from '@/parts/files/cells'
import { taken } from '@/state/decide'
import type { Edit } from '@/api/client'
import { newTerm, termText, type Decided } from '@/state/review'
import { labelKey } from '@/state/labelKey'

const head = [
  'facet',
  'item',
  'state',
  'block',
  'field',
  'narrower',
  'central',
  'reason',
  'sample',
  'who',
  'at',
] as const
const fields: readonly string[] = ['text', 'title', 'abstract', 'titleAbstract', 'keyword', 'any']
const facets: readonly string[] = taken
const most = 50_000 // lines that are read

/** What is decided about candidates as CSV: a line for each term of a block, and for each that is parked or dropped. */
export function writeCandidates(
  doc: ReviewDocument,
  decisions: ReadonlyMap<string, Decided>,
  samples: Sample[],
): string {
  const rows: string[][] = []
  const made = (by?: { sample?: number; who?: string; at?: string }) => [
    samples.find((s) => s.id === by?.sample)?.name ?? '',
    by?.who ?? '',
    by?.at ?? '',
  ]
  for (const b of doc.blocks) {
    for (const t of b.terms) {
      const heading = t.kind === 'heading'
      rows.push([
        heading ? 'headings' : (t.from?.facet ?? 'words'),
        termText(t),
        'kept',
        b.name,
        heading ? '' : (t.field ?? 'text'),
        t.narrower ? 'yes' : '',
        t.central ? 'yes' : '',
        '',
        ...made(t.from),
      ])
    }
  }
  for (const [key, d] of decisions) {
    const [facet, item] = key.split('\n')
    rows.push([facet, item, d.state, '', '', '', '', d.reason, ...made(d)])
  }
  return `${Papa.unparse({ fields: [...head], data: rows.map((row) => row.map(marked)) }, { newline: '\r\n' })}\r\n`
}

/** Reads such a file as changes; undefined where it is none. Lines that say nothing that can be done are passed over. */
export function readCandidates(
  text: string,
  doc: ReviewDocument,
): { edits: Edit[]; decisions: NewDecision[]; passed: number; lines: number[] } | undefined {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    preview: most,
    transformHeader: (h) => h.trim().toLowerCase(),
    transform: unmarked,
  })
  const columns = parsed.meta.fields ?? []
  if (!columns.includes('item') || !columns.includes('state')) return undefined
  const edits: Edit[] = []
  const decisions: NewDecision[] = []
  const lines: number[] = []
  const has = (block: string, term: Term) => {
    const b = doc.blocks.find((x) => x.id === block)
    return [
      ...(b?.terms ?? []),
      ...edits.flatMap((op) => (op.op === 'addTerm' && op.block === block ? [op.term] : [])),
    ].some(
      (x) =>
        x.kind === term.kind &&
        labelKey(termText(x)) === labelKey(termText(term)) &&
        (x.field ?? 'text') === (term.field ?? 'text'),
    )
  }
  const said = (value?: string) =>
    ['yes', 'true', '1', 'x'].includes((value ?? '').trim().toLowerCase())
  parsed.data.forEach((row, i) => {
    const item = (row.item ?? '').trim().slice(0, 1000)
    const facet = (row.facet ?? 'words').trim().toLowerCase() || 'words'
    const state = (row.state ?? '').trim().toLowerCase()
    if (
      item &&
      facets.includes(facet) &&
      (state === 'parked' || state === 'dropped' || state === 'open')
    ) {
      decisions.push({
        facet: facet as Facet,
        item: labelKey(item),
        state,
        reason: (row.reason ?? '').trim().slice(0, 200),
      })
      return
    }
    const block = doc.blocks.find(
      (b) => b.name.toLowerCase() === (row.block ?? '').trim().toLowerCase(),
    )
    if (item && facets.includes(facet) && state === 'kept' && block) {
      const asked = (row.field ?? '').trim()
      const field = (fields.includes(asked) ? asked : 'text') as Term['field']
      const from = {
        facet: facet as Facet,
        item: labelKey(item),
        who: (row.who ?? '').trim().slice(0, 80) || undefined,
        at: (row.at ?? '').trim().slice(0, 40) || undefined,
      }
      const near = /^(.*\S)\s*~\s*(\d{1,3})\s*(\S.*)$/.exec(item)
      const term =
        facet === 'headings'
          ? newTerm({
              kind: 'heading',
              heading: item.replace(/^\[|\+?\]$/g, ''),
              narrower: said(row.narrower) || /\+\]?$/.test(item),
              central: said(row.central) || undefined,
              from,
            })
          : near
            ? newTerm({
                kind: 'near',
                left: near[1],
                right: near[3],
                within: Number(near[2]),
                field,
                from,
              })
            : newTerm({ kind: 'text', text: item, field, from })
      if (!has(block.id, term)) edits.push({ op: 'addTerm', block: block.id, term })
      return
    }
    lines.push(i + 2)
  })
  return { edits, decisions, passed: lines.length, lines }
}
