<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** What the signs of the chart of years mean. */
defineProps<{ contrast: boolean; hasKeys: boolean }>()
const { t } = useI18n()
</script>

<template>
  <p class="small legend">
    <i class="dark" />{{ t('years.indexed') }} <i class="bare" />{{ t('years.unindexed') }}
    <template v-if="hasKeys"><i class="gold" />{{ t('years.keys') }}</template>
    <template v-if="contrast"><i class="dash" />{{ t('years.contrast') }}</template>
  </p>
</template>

<style scoped>
.legend {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  margin: 5px 2px 10px;
}

.legend i {
  width: 14px;
  height: 10px;
  border-radius: 2px;
}

.dark {
  background: var(--plum);
}

.bare {
  border: 1px solid var(--plum);
  background: repeating-linear-gradient(-45deg, var(--plum) 0 1.5px, #fff 1.5px 4.5px);
}

.legend .gold {
  background: var(--gold-bright);
  width: 8px;
  height: 8px;
  border-radius: 50%;
}

.legend .dash {
  height: 0;
  border-top: 2px dashed #8a6d1b;
}
</style>
