import { init } from 'echarts/core'
import { saveBlob } from '@/parts/files/blob'
import type { plotOption } from './plotOption'

/** Saves the plot as SVG: drawn once more, apart, as shapes, each of them by itself. */
export function saveShapes(
  option: ReturnType<typeof plotOption>,
  width: number,
  height: number,
  name: string,
) {
  const apart = init(null, null, { renderer: 'svg', ssr: true, width, height })
  const { series, ...rest } = option
  apart.setOption({
    ...rest,
    backgroundColor: '#fff',
    series: series.map((s) => ({ ...s, large: false })),
  })
  saveBlob(new Blob([apart.renderToSVGString()], { type: 'image/svg+xml' }), `${name}.svg`)
  apart.dispose()
}
