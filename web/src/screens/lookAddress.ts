import { onBeforeUnmount, watch, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useReview } from '@/state/review'

/** Opens the review that the address names, and keeps what is looked at in the address: it can be sent as a link, and a link that
 * comes is looked at. */
export function useLookAddress(number: Ref<number>) {
  const route = useRoute()
  const router = useRouter()
  const review = useReview()

  const named = () => (typeof route.query.look === 'string' ? route.query.look : undefined)
  watch(number, (id) => void review.open(id, named()), { immediate: true })
  let heading = '' // for where: what is said of this place now would call that off
  const leaves = router.beforeEach((to) => void (heading = to.fullPath))
  const arrives = router.afterEach((to) => {
    if (to.fullPath !== heading) return // it was called off by another, which goes on
    heading = ''
    tell()
  })
  onBeforeUnmount(() => [leaves, arrives].forEach((stop) => stop()))
  function tell() {
    const name = review.look.name
    if (!heading && name && review.saved?.id === number.value && named() !== name)
      void router.replace({ query: { ...route.query, look: name }, hash: route.hash })
  }
  watch(
    () => [review.look.name, named(), review.saved?.id] as const,
    ([name, asked], [before, askedBefore]) => {
      if (asked && asked === name) review.lookFollowed()
      if (review.saved && asked && asked !== name && asked !== askedBefore && name === before)
        void review.openLook(review.saved, asked).then(tell)
      else tell()
    },
  )
}
