import { ref, type Ref } from 'vue'

/** A handle at a year, moved by the pointer or by keys; at tells the year at a place of the window. */
export function useYearHandle(
  year: Ref<number | undefined>,
  first: Ref<number>,
  last: Ref<number>,
  at: (clientX: number) => number,
) {
  const clamp = (to: number) => Math.min(Math.max(to, first.value), last.value)
  const dragging = ref(false)

  function grab(e: PointerEvent) {
    dragging.value = true
    ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
    year.value = clamp(at(e.clientX))
  }
  function drag(e: PointerEvent) {
    if (dragging.value) year.value = clamp(at(e.clientX))
  }
  function drop() {
    dragging.value = false
  }
  function onKey(e: KeyboardEvent) {
    const by = {
      ArrowRight: 1,
      ArrowUp: 1,
      ArrowLeft: -1,
      ArrowDown: -1,
      PageUp: 10,
      PageDown: -10,
      Home: -1e4,
      End: 1e4,
    }[e.key]
    if (!by) return
    e.preventDefault()
    year.value = clamp((year.value ?? first.value) + by)
  }

  return { grab, drag, drop, onKey }
}
