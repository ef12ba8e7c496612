<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Previewed } from '@/api/client'
import MarkedText from '@/parts/MarkedText.vue'

/** The first titles that rough words find, to judge by. */
defineProps<{
  titles: Previewed['titles']
  settled: boolean
  /** Why there are none is said elsewhere. */
  quiet: boolean
}>()

const { t } = useI18n()
</script>

<template>
  <div class="titles">
    <h3 class="sect">{{ t('draw.firstTitles') }}</h3>
    <ol
      v-if="titles.length"
      tabindex="0"
      :aria-label="t('draw.firstTitles')"
      :class="{ stale: !settled }"
    >
      <li v-for="(x, i) in titles" :key="i">
        <MarkedText :pieces="x.title" /> <span class="small">{{ x.year || '' }}</span>
      </li>
    </ol>
    <p v-else-if="!quiet" class="small">{{ t('draw.noTitles') }}</p>
    <p v-if="titles.length" class="small judge">{{ t('draw.judge') }}</p>
  </div>
</template>

<style scoped>
.titles {
  border-left: 1px solid var(--line);
  padding-left: 16px;
  min-width: 0;
  display: flex;
  flex-direction: column;
}

.titles ol {
  max-height: 208px;
  overflow-y: auto;
}

.titles li {
  padding: 5px 0;
  border-bottom: 1px solid var(--line-soft);
  line-height: 1.35;
  overflow-wrap: anywhere;
}

.judge {
  padding-top: 6px;
}

.stale {
  opacity: 0.55;
}

@media (max-width: 1100px) {
  .titles {
    border-left: 0;
    padding-left: 0;
  }
}
</style>
