import { saveBlob } from '@/parts/files/blob'

const kept = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'opacity',
] as const

/** A drawing as it stands on the page, by itself: with its colours and letters written into it. */
export function standalone(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement
  const from = [svg, ...svg.querySelectorAll<SVGElement>('*')]
  const to = [copy, ...copy.querySelectorAll<SVGElement>('*')]
  from.forEach((el, i) => {
    const style = getComputedStyle(el)
    for (const property of kept) to[i].style.setProperty(property, style.getPropertyValue(property))
    to[i].removeAttribute('class')
  })
  for (const el of copy.querySelectorAll('[data-screen]')) el.remove() // handles and the like
  const box = svg.getBoundingClientRect()
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  copy.setAttribute('width', String(Math.round(box.width)))
  copy.setAttribute('height', String(Math.round(box.height)))
  return new XMLSerializer().serializeToString(copy)
}

/** Saves a drawing as SVG, or as PNG at twice its size on white. */
export async function saveChart(
  svg: SVGSVGElement,
  name: string,
  as: 'svg' | 'png',
): Promise<void> {
  const text = standalone(svg)
  if (as === 'svg') return saveBlob(new Blob([text], { type: 'image/svg+xml' }), `${name}.svg`)
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`
  await image.decode()
  const canvas = document.createElement('canvas')
  canvas.width = image.width * 2
  canvas.height = image.height * 2
  const draw = canvas.getContext('2d')
  if (!draw) return
  draw.fillStyle = '#fff'
  draw.fillRect(0, 0, canvas.width, canvas.height)
  draw.drawImage(image, 0, 0, canvas.width, canvas.height)
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
  if (blob) saveBlob(blob, `${name}.png`)
}
