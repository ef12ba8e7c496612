<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { figures, useFigure } from '@/figures'

/** What is looked at is being read and counted: how far that is. What takes no time says nothing. */
defineProps<{ label: string }>()

const { t, n } = useI18n()
const lasting = ref(false)
useTimeoutFn(() => (lasting.value = true), 700)

const asked = useFigure(figures.making, () => null, {
  enabled: () => lasting.value,
  again: () => 700,
  stays: 0,
})
const stages = ['reading', 'indexing', 'counting'] as const
const making = computed(() => (asked.data.value?.stage === 'ready' ? undefined : asked.data.value))
// Reading and counting take about as long as each other, indexing a little.
const done = computed(() => {
  const m = making.value
  if (!m) return 0
  const from = { reading: 0, indexing: 40, counting: 50, ready: 100 }[m.stage]
  return from + m.part * { reading: 40, indexing: 0, counting: 50, ready: 0 }[m.stage]
})
</script>

<template>
  <div class="making">
    <v-progress-linear
      :indeterminate="!making"
      :model-value="done"
      color="primary"
      :aria-label="label"
    />
    <template v-if="making">
      <p class="stage" role="status">
        {{ t(`making.${making.stage}`, { n: n(making.records, 'whole') }, making.records) }}
      </p>
      <ol class="small">
        <li
          v-for="s in stages"
          :key="s"
          :class="{
            here: s === making.stage,
            done: stages.indexOf(s) < stages.indexOf(making.stage as typeof s),
          }"
        >
          {{ t(`making.step.${s}`) }}
        </li>
      </ol>
      <p class="small">{{ t('making.leave') }}</p>
    </template>
  </div>
</template>

<style scoped>
.making {
  max-width: 560px;
}

.stage {
  margin-top: 26px;
  font: 500 18px/1.3 var(--display);
}

ol {
  display: flex;
  gap: 18px;
  margin: 8px 0;
}

li::before {
  content: '○ ';
}

li.here {
  color: var(--ink);
  font-weight: 650;
}

li.done::before {
  content: '● ';
}
</style>
