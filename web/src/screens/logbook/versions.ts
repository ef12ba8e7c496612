import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Version } from '@/api/client'
import { useReview } from '@/state/review'

/** The versions of the review, the oldest first, and what holds now as the last. */
export function useVersions() {
  const review = useReview()
  return useQuery({
    queryKey: computed(() => [
      'versions',
      review.id,
      review.revision,
      review.lookStamp,
      review.keysStamp,
      review.vocabulary?.id,
    ]),
    queryFn: () => ask(api.GET('/api/reviews/{review}/versions', { params: review.asked })),
    enabled: () => review.id > 0,
    placeholderData: keepPreviousData,
  })
}

/** Says what a version is called: as somebody named it, or before which step it was kept by itself. */
export function useVersionName() {
  const { t, te } = useI18n()
  return (v: Version): string =>
    v.name ||
    (v.id === 0
      ? t('versions.now')
      : te(`versions.why.${v.why}`)
        ? t(`versions.why.${v.why}`)
        : t('versions.why.other'))
}
