import { blockColour } from '@/parts/BlockStamp.vue'
import type { Block } from '@/api/client'
import type { Candidate } from './candidates'

// The figures span orders of magnitude; logarithms spread them over the plot.
export const right = (records: number) => Math.log(records)
const up = (pull: number) => Math.sign(pull) * Math.log1p(Math.abs(pull))
export const down = (y: number) => Math.sign(y) * Math.expm1(Math.abs(y))

/** How high up an item stands: by pull, or without a contrast by key studies. */
export const upOf = (c: Candidate, hasContrast: boolean) =>
  hasContrast ? up(c.row.pull ?? 0) : (c.row.keys ?? 0)

/** A dot needs no more than a place: items of the same figures are drawn once, the first of them named. */
export function dotsOf(rows: Candidate[]): Candidate[] {
  const seen = new Map<number, Candidate>()
  for (const c of rows) {
    const place = c.row.records * 1e6 + Math.round((c.row.pull ?? c.row.keys ?? 0) * 4)
    const has = seen.get(place)
    if (!has || (has.state === 'open' && c.state === 'kept')) seen.set(place, c)
  }
  return [...seen.values()]
}

const mostCalled = 24
const firstOnes = 8

/** The dots that have names: what is kept, and the first of the others. */
export const calledOf = (dots: Candidate[]) => [
  ...dots.filter((c) => c.state === 'kept').slice(0, mostCalled),
  ...dots.filter((c) => c.state !== 'kept').slice(0, firstOnes),
]

export const short = (c: Candidate) => (c.item.length > 26 ? `${c.item.slice(0, 25)}…` : c.item)

/** The plot as it is drawn; resolve says what a colour of the style sheet is. */
export function plotOption(
  dots: Candidate[],
  blocks: Block[],
  hasContrast: boolean,
  resolve: (colour: string) => string,
) {
  const called = calledOf(dots)
  const point = (c: Candidate) => ({ value: [right(c.row.records), upOf(c, hasContrast)] })
  const plain = dots.filter((c) => c.state !== 'kept')
  const looks = (c: Candidate) => {
    const block = blocks.find((b) => b.id === c.blocks[0])
    return block
      ? {
          symbolSize: 8,
          itemStyle: {
            color: resolve(blockColour(block.name)),
            borderColor: '#fff',
            borderWidth: 1,
          },
        }
      : { symbolSize: 4.5, itemStyle: { color: 'rgba(34, 28, 43, 0.4)' } }
  }
  const label = (c: Candidate) => ({
    show: true,
    formatter: short(c),
    position: 'right' as const,
    color: '#221c2b',
    fontFamily: 'Atkinson Hyperlegible Next Variable',
    fontSize: 11.5,
  })
  const named = [...called, ...dots.filter((c) => c.state === 'kept').slice(mostCalled)]
  return {
    animation: false,
    grid: { left: 26, right: 90, top: 14, bottom: 14 },
    xAxis: {
      type: 'value' as const,
      min: 'dataMin' as const,
      axisLabel: { show: false },
      axisTick: { show: false },
      splitLine: { show: false },
      axisLine: { lineStyle: { color: '#ded7c8' } },
    },
    yAxis: {
      type: 'value' as const,
      min: 'dataMin' as const,
      max: 'dataMax' as const,
      axisLabel: { show: false },
      axisTick: { show: false },
      splitLine: { show: false },
      axisLine: { show: true, lineStyle: { color: '#ded7c8' } },
    },
    series: [
      // Drawn as one shape: thousands of dots that nobody points at one by one.
      {
        type: 'scatter' as const,
        silent: true,
        large: true,
        largeThreshold: 200,
        symbolSize: 4.5,
        itemStyle: { color: 'rgba(34, 28, 43, 0.22)' },
        data: plain.slice(firstOnes).map((c) => [right(c.row.records), upOf(c, hasContrast)]),
      },
      {
        type: 'scatter' as const,
        silent: true,
        z: 4,
        labelLayout: { hideOverlap: true },
        data: named.map((c) => ({ ...point(c), ...looks(c), label: label(c) })).reverse(),
      },
    ],
  }
}
