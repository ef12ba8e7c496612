import { refDebounced } from '@vueuse/core'
import { computed, type Ref } from 'vue'
import { type RoughConcept } from '@/api/client'
import { figures, useFigure } from '@/figures'

/** What rough words find at a source, asked when somebody stops typing; settled is whether it is what is typed now. */
export function useRoughPreview(source: Ref<number | undefined>, concepts: Ref<RoughConcept[]>) {
  const some = computed(() => concepts.value.some((c) => c.words.length))
  const asked = refDebounced(
    computed(() => JSON.stringify({ source: source.value, concepts: concepts.value })),
    350,
  )

  const preview = useFigure(
    figures.preview,
    () => ({ source: source.value ?? 0, concepts: concepts.value }),
    { enabled: () => source.value !== undefined && some.value, once: true, holds: 60_000 },
  )
  const settled = computed(
    () =>
      asked.value === JSON.stringify({ source: source.value, concepts: concepts.value }) &&
      !preview.isFetching.value,
  )
  const found = computed(() => (some.value ? preview.data.value : undefined))

  return { preview, settled, found }
}
