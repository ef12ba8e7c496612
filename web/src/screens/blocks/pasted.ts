/** The terms of a list that was pasted: one a line, or parted by OR, without the quotes around them. */
export const termsOf = (list: string) =>
  list
    .split(/\r?\n/)
    .flatMap((line) => line.split(/\s+OR\s+/))
    .map((x) => x.trim().replace(/^["“]+|["”]+$/g, ''))
    .filter(Boolean)
