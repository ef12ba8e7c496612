<script setup lang="ts">
import { onMounted, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Facet, Tally } from '@/api/client'
import { shared } from './tallies'

/** The facets to choose from; of those whose items are picked from a list, with how many there are. */
defineProps<{ offered: Facet[]; tallyOf: (f: Facet) => Tally | undefined }>()
const facet = defineModel<Facet>({ required: true })

const { t, n } = useI18n()
const uncounted: Facet[] = ['years', ...shared]

// Where it is narrow the bar scrolls: the one that is chosen is in sight.
const bar = useTemplateRef('bar')
const show = () =>
  bar.value?.querySelector('.here')?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
onMounted(show)
watch(facet, show, { flush: 'post' })
</script>

<template>
  <!-- Counts that come in move the tabs: what is pressed counts, not what the pointer is let go on. -->
  <div ref="bar" class="facets" role="tablist" :aria-label="t('harvest.facets')">
    <button
      v-for="f in offered"
      :key="f"
      role="tab"
      :aria-selected="f === facet"
      :class="{ here: f === facet }"
      @mousedown.left="facet = f"
      @click="facet = f"
    >
      {{ t(`facet.${f}`) }}
      <small v-if="!uncounted.includes(f) && tallyOf(f)">{{ n(tallyOf(f)!.all, 'whole') }}</small>
    </button>
  </div>
</template>

<style scoped>
.facets {
  display: flex;
  flex: none;
  overflow-x: auto;
  scrollbar-width: none;
  white-space: nowrap;
  gap: 0 10px;
  border-bottom: 1px solid var(--line);
  margin-top: 8px;
}

.facets button {
  border: 0;
  background: none;
  padding: 5px 0 7px;
  color: var(--ink-2);
  cursor: pointer;
}

.facets button.here {
  color: var(--ink);
  font-weight: 650;
  box-shadow: 0 2px 0 var(--plum);
}

.facets small {
  color: var(--ink-3);
  font-size: 11px;
}

@media (max-width: 1150px) {
  .facets {
    gap: 0 12px;
  }

  .facets button:not(.here) small {
    display: none;
  }
}
</style>
