/** How a change is written: with its sign, which is a minus and no hyphen. */
export const signedWith = (n: (x: number, how: string) => string) => (x: number) =>
  x > 0 ? `+${n(x, 'whole')}` : `−${n(-x, 'whole')}`
