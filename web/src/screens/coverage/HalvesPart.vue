<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Recall } from '@/api/client'
import WithTip from '@/parts/WithTip.vue'

/** Recall of the two halves: of the build half words may be mined, the test half only measures. */
defineProps<{ build?: Recall; test?: Recall }>()
const { t, n } = useI18n()
const said = (r: Recall) =>
  t('halves.interval', { low: Math.round(r.low * 100), high: n(r.high, 'share') })
</script>

<template>
  <template v-for="(r, half) in { build, test }" :key="half">
    <WithTip v-if="r" :text="t(`halves.${half}Tip`)">
      <template #default="{ describedBy }">
        <div tabindex="0" :aria-describedby="describedBy">
          <div class="display">
            {{ r.caught }} <span class="small">/ {{ r.of }}</span>
          </div>
          <div class="small">{{ t(`halves.${half}`) }}, {{ said(r) }}</div>
        </div>
      </template>
    </WithTip>
  </template>
</template>

<style scoped>
.display {
  font-size: 18px;
  font-weight: 600;
  line-height: 1.2;
}
</style>
