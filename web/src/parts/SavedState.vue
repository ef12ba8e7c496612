<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'

/** Whether what was done is saved, and if not, why. */
const { t, d } = useI18n()
const review = useReview()
const problem = useProblem()

const state = computed(() => {
  if (review.offline)
    return {
      text: t(
        review.offline.problem.type === 'disk-full' ? 'saved.full' : 'saved.offline',
        { n: review.queue.length },
        review.queue.length,
      ),
      why: t('saved.again', { why: problem(review.offline) }),
      wrong: true,
    }
  if (review.queue.length) return { text: t('saved.saving'), wrong: false }
  return {
    text: review.savedAt ? t('saved.at', { time: d(review.savedAt, 'time') }) : '',
    wrong: false,
  }
})
</script>

<template>
  <span class="small state" :class="{ wrong: state.wrong }" role="status" :title="state.why">{{
    state.text
  }}</span>
</template>

<style scoped>
.state {
  white-space: nowrap;
}

.state.wrong {
  color: var(--miss);
  font-weight: 600;
}
</style>
