/** A name that is to stand beside its dot in a plot. */
export interface Named {
  x: number
  y: number
  text: string
}

export interface Placed extends Named {
  left: number
  top: number
}

const high = 15
const dot = 6
const wide = (text: string) => 6.4 * text.length + 6

/**
 * Names beside their dots, the first ones before the others: to the right, to the left, above or below, wherever
 * neither another name nor a named dot stands. A name that finds no place is left out, but for the first where it has to
 * be there: that one may cover a dot.
 */
export function placeNames(
  named: Named[],
  width: number,
  height: number,
  first: boolean,
): Placed[] {
  const taken = named.map((n) => ({ l: n.x - dot, r: n.x + dot, t: n.y - dot, b: n.y + dot }))
  const out: Placed[] = []
  named.forEach((n, own) => {
    const w = wide(n.text)
    const places = [
      [n.x + dot + 2, n.y - high / 2],
      [n.x - dot - 2 - w, n.y - high / 2],
      [n.x - w / 2, n.y - dot - high],
      [n.x - w / 2, n.y + dot],
    ]
    for (const [l, t] of places) {
      const box = { l, r: l + w, t, b: t + high }
      if (box.l < 0 || box.r > width || box.t < 0 || box.b > height) continue
      const dots = first && own === 0 ? [] : taken
      if (
        dots.some((o, i) => i !== own && box.l < o.r && box.r > o.l && box.t < o.b && box.b > o.t)
      )
        continue
      taken.push(box)
      out.push({ ...n, left: l, top: t })
      return
    }
  })
  return out
}
