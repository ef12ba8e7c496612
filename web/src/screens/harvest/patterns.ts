/** What a filter looks for: words that an item holds, or with * and ? whole words that fit. */
export interface Pattern {
  match?: (item: string) => boolean
  refused: boolean
}

/** Reads a filter. Each word of a pattern is for one word of an item; they stand in a row. */
export function patternOf(typed: string): Pattern {
  const text = typed.trim().toLowerCase()
  if (!text) return { refused: false }
  if (!/[*?]/.test(text))
    return { match: (item) => item.toLowerCase().includes(text), refused: false }
  const words = text.split(/\s+/)
  // Letters, not signs alone: * by itself would fit everything.
  if (text.length > 200 || words.some((w) => /[*?]/.test(w) && w.replace(/[*?]/g, '').length < 2))
    return { match: () => false, refused: true }
  const one = (word: string) =>
    word
      .replace(/[.+^${}()|[\]\\/]/g, '\\$&')
      .replace(/\*+/g, '\\S*')
      .replace(/\?/g, '\\S')
  const whole = new RegExp(`(?:^|\\s)${words.map(one).join('\\s+')}(?:\\s|$)`, 'u')
  return { match: (item) => whole.test(item.toLowerCase()), refused: false }
}
