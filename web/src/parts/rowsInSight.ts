import { useVirtualizer } from '@tanstack/vue-virtual'
import { computed, type Ref } from 'vue'

/**
 * Of a list of any length the rows in sight, each of the same height. They are meant to be keyed by their place among
 * those drawn, and to follow each other under the room that `whole` leaves above: so scrolling changes what rows say and
 * nothing else. Rows that are each put in their place cost the browser more with every step, as their styles pile up.
 */
export function useRowsInSight(
  scroller: Ref<HTMLElement | undefined>,
  count: () => number,
  height: number,
  overscan = 10,
) {
  const virtual = useVirtualizer(
    computed(() => ({
      count: count(),
      getScrollElement: () => scroller.value ?? null,
      estimateSize: () => height,
      overscan,
    })),
  )
  const drawn = computed(() => virtual.value.getVirtualItems().map((v) => v.index))
  const whole = computed(() => ({
    boxSizing: 'border-box' as const,
    overflow: 'hidden',
    height: `${virtual.value.getTotalSize()}px`,
    paddingTop: `${(drawn.value[0] ?? 0) * height}px`,
  }))
  const show = (row: number) => virtual.value.scrollToIndex(row, { align: 'auto' })
  return { drawn, whole, show }
}
