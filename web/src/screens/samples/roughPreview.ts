import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, type Ref } from 'vue'
import { api, ask, type RoughConcept } from '@/api/client'

/** What rough words find at a source, asked when somebody stops typing; settled is whether it is what is typed now. */
export function useRoughPreview(source: Ref<number | undefined>, concepts: Ref<RoughConcept[]>) {
  const some = computed(() => concepts.value.some((c) => c.words.length))
  const asked = refDebounced(
    computed(() => JSON.stringify({ source: source.value, concepts: concepts.value })),
    350,
  )

  const preview = useQuery({
    queryKey: computed(() => ['preview', asked.value]),
    queryFn: ({ signal }) =>
      ask(
        api.POST('/api/sources/{source}/preview', {
          params: { path: { source: source.value! } },
          body: { concepts: concepts.value },
          signal,
        }),
      ),
    enabled: () => source.value !== undefined && some.value,
    retry: false,
    staleTime: 60_000,
  })
  const settled = computed(
    () =>
      asked.value === JSON.stringify({ source: source.value, concepts: concepts.value }) &&
      !preview.isFetching.value,
  )
  const found = computed(() => (some.value ? preview.data.value : undefined))

  return { preview, settled, found }
}
