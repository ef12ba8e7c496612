<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { CallError, type Tally } from '@/api/client'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import MakingProgress from '@/parts/MakingProgress.vue'

/** Why no figures are shown: something is wrong, they are being made or counted, or nothing is looked at. */
const props = defineProps<{ tally?: Tally; error: Error | null }>()

const { t } = useI18n()
const review = useReview()
const problem = useProblem()
const gone = computed(() => props.error instanceof CallError && !props.error.passing)
</script>

<template>
  <p v-if="error && !tally" class="wrong" role="alert">
    {{ problem(error)
    }}<button v-if="gone" class="btn bare" @click="review.refresh()">
      {{ t('act.lookAgain') }}
    </button>
  </p>
  <MakingProgress v-else-if="!tally" :label="t('harvest.counting')" />
  <p v-else-if="!tally.looked" class="small none">{{ t('looked.empty') }}</p>
  <p v-else class="waiting" role="status">{{ t('looked.counting') }}</p>
</template>

<style scoped>
.wrong {
  color: var(--miss);
  margin-top: 14px;
}

.none {
  padding: 12px;
}
</style>
