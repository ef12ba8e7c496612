import { computed, ref, shallowRef, type Ref } from 'vue'
import type { ECharts } from 'echarts/core'
import type { Area, Candidate } from './candidates'
import { down, right, upOf } from './plotOption'

/** What the pointer does on the plot: a click selects the item that is near, a drawn rectangle is an area. */
export function usePlotPointer(
  holder: Ref<HTMLElement | undefined>,
  chart: Ref<ECharts | undefined>,
  dots: Ref<Candidate[]>,
  hasContrast: () => boolean,
  selected: (c: Candidate) => void,
  areaed: (a: Area | undefined) => void,
) {
  const drawn = ref<{ x0: number; y0: number; x1: number; y1: number }>()

  function place(e: PointerEvent): [number, number] {
    const box = holder.value!.getBoundingClientRect()
    return [e.clientX - box.left, e.clientY - box.top]
  }

  function press(e: PointerEvent) {
    if (e.button !== 0) return
    const [x, y] = place(e)
    drawn.value = { x0: x, y0: y, x1: x, y1: y }
    holder.value?.setPointerCapture(e.pointerId)
  }

  const near = shallowRef<Candidate>()
  function move(e: PointerEvent) {
    const [x, y] = place(e)
    if (drawn.value) drawn.value = { ...drawn.value, x1: x, y1: y }
    near.value = drawn.value ? undefined : closest(x, y)
  }

  function release() {
    const d = drawn.value
    drawn.value = undefined
    if (!d || !chart.value) return
    if (Math.abs(d.x1 - d.x0) < 5 && Math.abs(d.y1 - d.y0) < 5) {
      const c = closest(d.x0, d.y0)
      if (c) selected(c)
      else areaed(undefined)
      return
    }
    const from = chart.value.convertFromPixel('grid', [Math.min(d.x0, d.x1), Math.max(d.y0, d.y1)])
    const to = chart.value.convertFromPixel('grid', [Math.max(d.x0, d.x1), Math.min(d.y0, d.y1)])
    areaed({
      records: [Math.exp(from[0]), Math.exp(to[0])],
      pull: hasContrast() ? [down(from[1]), down(to[1])] : [-Infinity, Infinity],
    })
  }

  /** The item within a few pixels of a place. */
  function closest(x: number, y: number): Candidate | undefined {
    let best: Candidate | undefined
    let least = 100
    for (const c of dots.value) {
      const at = chart.value?.convertToPixel('grid', [right(c.row.records), upOf(c, hasContrast())])
      if (!at) continue
      const far = (at[0] - x) ** 2 + (at[1] - y) ** 2
      if (far < least) [best, least] = [c, far]
    }
    return best
  }

  /** The rectangle that is being drawn. */
  const box = computed(() => {
    const d = drawn.value
    return (
      d && {
        left: `${Math.min(d.x0, d.x1)}px`,
        top: `${Math.min(d.y0, d.y1)}px`,
        width: `${Math.abs(d.x1 - d.x0)}px`,
        height: `${Math.abs(d.y1 - d.y0)}px`,
      }
    )
  })

  return { near, box, press, move, release }
}
