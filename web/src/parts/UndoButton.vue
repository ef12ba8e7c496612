<script setup lang="ts">
// Takes back the last step of whoever presses it, and names it.
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useReview } from '@/state/review'
import { useSteps } from '@/state/steps'

const review = useReview()
const steps = useSteps()
const { t } = useI18n()
const what = computed(() => (review.canUndo ? steps.say(review.canUndo) : ''))
</script>

<template>
  <button class="btn bare undo" :disabled="!what" :title="what || undefined" @click="steps.undo()">
    <span>{{ t('steps.undo') }}<template v-if="what">:</template></span>
    <span v-if="what" class="what cut">{{ what }}</span>
    <kbd>Ctrl Z</kbd>
  </button>
</template>

<style scoped>
.undo {
  display: inline-flex;
  align-items: baseline;
  gap: 0.35em;
}
.what {
  max-width: 15em;
  color: var(--ink-2);
}
@media (max-width: 1100px) {
  .what {
    max-width: 8em;
  }
}
</style>
