/** A piece of a line: other where the other version of the line does not have it. */
export interface Marked {
  text: string
  other: boolean
}

/** Parts a line into words, and tells those that the other version of it does not have in that order. */
export function marked(line: string, other: string): Marked[] {
  const a = line.split(/(\s+)/).filter(Boolean)
  const b = other.split(/(\s+)/).filter(Boolean)
  // The longest run of words that both have, in order.
  const best = Array.from({ length: a.length + 1 }, () => new Uint16Array(b.length + 1))
  for (let i = a.length - 1; i >= 0; i--)
    for (let k = b.length - 1; k >= 0; k--)
      best[i]![k] =
        a[i] === b[k] ? best[i + 1]![k + 1]! + 1 : Math.max(best[i + 1]![k]!, best[i]![k + 1]!)
  const out: Marked[] = []
  const put = (text: string, other: boolean) => {
    const last = out.at(-1)
    if (last?.other === other) last.text += text
    else out.push({ text, other })
  }
  let i = 0
  let k = 0
  while (i < a.length) {
    if (k < b.length && a[i] === b[k]) {
      put(a[i]!, false)
      i++
      k++
    } else if (k < b.length && best[i]![k + 1]! > best[i + 1]![k]!) k++
    else put(a[i++]!, true)
  }
  return out
}
