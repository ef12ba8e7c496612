<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { TallyItem } from '@/api/client'

/** How the words of a phrase can be searched, each with what it finds: as they stand, or near each other. */
defineProps<{ ways: NonNullable<TallyItem['ways']>; pair: boolean }>()
const near = defineModel<boolean>('near', { required: true })

const { t, n } = useI18n()
</script>

<template>
  <p class="ways small">
    <template v-for="w in ways" :key="w.how">
      <button
        v-if="w.how !== 'words' && pair"
        class="way"
        :class="{ on: (w.how === 'near') === near }"
        :aria-pressed="(w.how === 'near') === near"
        @click="near = w.how === 'near'"
      >
        {{ t(`stands.${w.how}`) }} <b>{{ n(w.records, 'whole') }}</b>
      </button>
      <span v-else class="way still"
        >{{ t(`stands.${w.how}`) }} <b>{{ n(w.records, 'whole') }}</b></span
      >
    </template>
  </p>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-top: 7px;
}

.way {
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--white);
  padding: 1px 8px;
  cursor: pointer;
}

.way.on {
  border-color: var(--plum);
  box-shadow: inset 0 0 0 1px var(--plum);
}

.way.still {
  background: none;
  border-style: dashed;
  cursor: default;
}
</style>
