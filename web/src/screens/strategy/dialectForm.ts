/** What a dialect's file says, member by member, as a form shows it: where it stands and how it is typed. */
export type How =
  'text' | 'area' | 'number' | 'check' | 'list' | 'pairs' | 'ranks' | readonly string[]

export interface Member {
  path: string
  how: How
}

const of = (part: string, how: How, names: string): Member[] =>
  names.split(' ').map((x) => ({ path: part ? `${part}.${x}` : x, how }))

export const searched = 'text titleAbstract title abstract keyword subject any journal'

export const groups: Record<string, Member[]> = {
  about: [
    ...of('', 'text', 'name title'),
    ...of('', 'area', 'about'),
    ...of('', ['query', 'lines'], 'typed'),
    ...of('', 'text', 'vocabulary'),
    ...of('', 'number', 'longest mostTerms'),
  ],
  fields: [
    ...of('fields', 'list', `${searched} author heading year type language country identifier`),
    ...of('', ['', ...searched.split(' ')], 'bare'),
    ...of('', 'text', 'several'),
    ...of('clauses', 'list', 'is many whole all any'),
  ],
  terms: [
    ...of('terms', 'pairs', 'marks'),
    ...of('terms', ['phrase', 'and', 'none'], 'words'),
    ...of('terms', 'list', 'many one'),
    ...of('terms', 'check', 'left inside end inPhrase always'),
    ...of('terms', 'number', 'letters'),
  ],
  joining: [
    ...of('operators', 'list', 'and or not'),
    ...of('operators', 'ranks', 'ranks'),
    ...of('operators', 'check', 'exact'),
    ...of('brackets', 'text', 'open shut'),
    ...of('brackets', 'number', 'deepest'),
    ...of('brackets', 'check', 'always'),
  ],
  near: [
    ...of('near', 'list', 'unordered ordered exactly exactlyOrdered'),
    ...of('near', 'number', 'most'),
    ...of('near', 'check', 'between'),
  ],
  headings: of('headings', 'list', 'is narrower central qualifier'),
  years: of('years', 'list', 'is from to between before after'),
  lines: of('lines', 'list', 'one or and'),
  rest: [...of('', 'text', 'escape'), ...of('', 'list', 'after'), ...of('', 'pairs', 'comments')],
}

type Body = Record<string, unknown>

/** Members that a file has also where they hold nothing. */
const always = ['fields', 'clauses', 'terms', 'operators', 'brackets']

/** What stands at a member, as it is typed: lists one a line, pairs with a space between. */
export function shown(body: Body, m: Member): string {
  const [part, name] = m.path.split('.') as [string, string?]
  const value = name ? (body[part] as Body | undefined)?.[name] : body[part]
  if (value === undefined || value === null) return ''
  if (m.how === 'pairs' || m.how === 'ranks')
    return (value as string[][]).map((x) => x.join(' ')).join('\n')
  if (Array.isArray(value)) return value.join('\n')
  return String(value)
}

/** The file with a member as it was typed; what is empty is left out. */
export function withMember(body: Body, m: Member, typed: string): Body {
  const out = JSON.parse(JSON.stringify(body)) as Body
  const [part, name] = m.path.split('.') as [string, string?]
  const lines = typed.split('\n').filter((x) => x.trim() !== '')
  let value: unknown = typed || undefined
  if (m.how === 'number') value = Number(typed) || undefined
  else if (m.how === 'check') value = typed === 'true' || undefined
  else if (m.how === 'list') value = lines.length ? lines : undefined
  else if (m.how === 'pairs') value = lines.length ? lines.map(pair) : undefined
  else if (m.how === 'ranks') value = lines.map((x) => x.trim().split(/[\s,]+/))
  const holder = name ? ((out[part] ??= {}) as Body) : out
  const key = name ?? part
  if (value === undefined) delete holder[key]
  else holder[key] = value
  if (name && !Object.keys(holder).length && !always.includes(part)) delete out[part]
  return out
}

/** One sign that begins and ends alike, or two. */
function pair(line: string): [string, string] {
  const [a, b] = line.trim().split(/\s+/)
  return [a!, b ?? a!]
}

/** A file as text that people can read. */
export const printed = (body: Body) => JSON.stringify(body, null, 2)
