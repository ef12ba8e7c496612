<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import WithTip from '@/parts/WithTip.vue'
import SampleMark from '@/parts/SampleMark.vue'

/** What a block finds by its headings alone, by its words alone, and by both. */
const props = defineProps<{ headings: number; both: number; words: number; unindexed?: number }>()
const { t, n } = useI18n()
const parts = computed(() => [
  { id: 'headingsAlone', records: props.headings },
  { id: 'both', records: props.both },
  { id: 'wordsAlone', records: props.words },
])
</script>

<template>
  <div class="way">
    <div class="bar" aria-hidden="true">
      <i v-for="p in parts" :key="p.id" :class="p.id" :style="{ flexGrow: p.records }" />
    </div>
    <ul>
      <li v-for="p in parts" :key="p.id" class="small">
        <i :class="p.id" aria-hidden="true" />
        <WithTip v-slot="{ describedBy }" :text="t(`formula.${p.id}`)"
          ><span tabindex="0" :aria-describedby="describedBy"
            >{{ t(`figure.${p.id}`) }} <b>{{ n(p.records, 'whole') }}</b><SampleMark /><template
              v-if="p.id === 'wordsAlone' && unindexed"
              >, {{ t('blocks.unindexed', { n: n(unindexed, 'whole') }) }}</template
            ></span
          ></WithTip
        >
      </li>
    </ul>
  </div>
</template>

<style scoped>
.way {
  margin-bottom: 6px;
}

.bar {
  display: flex;
  height: 13px;
  border: 1px solid var(--line);
  border-radius: 3px;
  overflow: hidden;
}

.headingsAlone {
  background: var(--plum);
}

.both {
  background: #a57a98;
}

.wordsAlone {
  background: #e6d7e2;
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin-top: 4px;
}

li {
  display: flex;
  align-items: center;
  gap: 6px;
}

li > i {
  width: 9px;
  height: 9px;
  border: 1px solid var(--line);
  border-radius: 2px;
}
</style>
