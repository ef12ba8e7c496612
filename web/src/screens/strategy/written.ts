import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, ask } from '@/api/client'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** The lines of the strategy as they are written: for a source, in a dialect, or in CQL, as is wanted. */
export function useWritten(wanted: Ref<string>) {
  const review = useReview()
  const sources = useSources()
  const source = computed(() => sources.all.find((s) => `s${s.id}` === wanted.value))
  const dialects = useQuery({
    queryKey: ['dialects'],
    queryFn: () => ask(api.GET('/api/dialects')),
  })
  const dialect = computed(() =>
    dialects.data.value?.find((d) => `d${d.name}` === wanted.value && !d.broken),
  )
  const typing = useQuery({
    queryKey: computed(() => [
      'typed',
      review.id,
      review.revision,
      review.lookStamp,
      review.vocabulary?.id,
      dialect.value?.name,
      dialect.value?.body,
    ]),
    queryFn: () =>
      ask(
        api.POST('/api/reviews/{review}/typed', {
          params: review.asked,
          body: { dialect: dialect.value?.name },
        }),
      ),
    enabled: () => !!dialect.value,
  })
  const typed = computed(() => (dialect.value ? typing.data.value : undefined))
  const asked = useQuery({
    queryKey: computed(() => [
      'lines',
      review.id,
      review.revision,
      source.value?.id,
      source.value?.map,
      review.vocabulary?.id,
    ]),
    queryFn: () =>
      ask(
        api.GET('/api/reviews/{review}/lines', {
          params: { path: { review: review.id }, query: { source: source.value?.id } },
        }),
      ),
    placeholderData: keepPreviousData,
  })
  const written = computed(() => asked.data.value)

  return { written, typed, typing, dialect, asked }
}
