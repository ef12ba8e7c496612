// What stands for what, before letters are compared: what vanishes, what is a space, an apostrophe, a hyphen.
const vanish = /[\u00AD\u200B-\u200D\u2060\uFEFF]/g
const blanks = /[\u2122\u2120\u00AE\u00A9]/g
const apostrophes = /[\u2018\u2019\u02BC`\u00B4]/g
const hyphens = /[\u2010\u2011]/g

/** A letter without its case (Unicode, CaseFolding.txt): up and down again tells ß from s and ς from σ as one by itself does not. */
function folded(letter: string): string {
  if (letter === 'ı') return letter
  if (letter === 'ẞ') return 'ss'
  if (/[\u13A0-\u13F5]/.test(letter)) return letter // the one script whose small letters fold into its capitals
  const up = letter.toUpperCase()
  return /^[\u13A0-\u13F5]$/.test(up) ? up : up.toLowerCase().replace(/ς/g, 'σ')
}

/**
 * By what a heading, a word or a decision is known, however it is written: the same as the server's (`text.Label`). Both keep to
 * the examples in `testdata/keys.json`.
 */
export function labelKey(written: string): string {
  const plain = written
    .replace(vanish, '')
    .replace(blanks, ' ')
    .replace(apostrophes, "'")
    .replace(hyphens, '-')
    .normalize('NFKC')
  return Array.from(plain, folded)
    .join('')
    .normalize('NFD')
    .replace(/[\u0300-\u036F]/g, '')
    .normalize('NFC')
    .replace(/[\s\u0085]+/g, ' ')
    .trim()
}
