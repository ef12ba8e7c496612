<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { type AlikeQuestion } from '@/api/client'
import { figures, useFigure } from '@/figures'
import BlockStamp from './BlockStamp.vue'
import { decisionKey, useReview } from '@/state/review'

/** Words that keep the same company as an item, a term or a block: each can be gone to. */
const props = defineProps<{ like: AlikeQuestion; title: string }>()
const emit = defineEmits<{ find: [item: string] }>()

const { t, n } = useI18n()
const review = useReview()
const found = useFigure(figures.alike, () => props.like)
const words = computed(() => found.data.value?.words ?? [])
const blocks = (item: string) => review.kept.get(decisionKey('words', item)) ?? []
const state = (item: string) => review.decisions.get(decisionKey('words', item))?.state
</script>

<template>
  <section class="alike" :aria-label="t('alike.title')">
    <h3 class="small">{{ t('alike.title') }}</h3>
    <p class="small">{{ title }}</p>
    <v-progress-linear
      v-if="found.isPending.value"
      indeterminate
      color="primary"
      :aria-label="t('harvest.counting')"
    />
    <p v-else-if="!words.length" class="small">{{ t('alike.none') }}</p>
    <ol v-else>
      <li v-for="w in words" :key="w.item">
        <button
          :title="
            t('alike.tip', {
              alike: w.alike.toFixed(2),
              together: n(w.together, 'whole'),
              records: n(w.records, 'whole'),
            })
          "
          @click="emit('find', w.item)"
        >
          <i :style="{ width: `${Math.round(w.alike * 44)}px` }" />
          <span class="mono cut" :class="state(w.item)">{{ w.item }}</span>
          <BlockStamp v-for="b in blocks(w.item)" :key="b" :block="b" :size="15" />
          <em>{{ n(w.records, 'whole') }}</em>
          <small>{{ t('alike.together', { n: n(w.together, 'whole') }) }}</small>
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
h3 {
  margin: 13px 0 2px;
  text-transform: uppercase;
  letter-spacing: 0.06em;
  font-weight: 650;
}

ol {
  margin-top: 4px;
}

button {
  display: grid;
  grid-template-columns: 46px minmax(0, 1fr) auto 40px 76px;
  align-items: center;
  gap: 6px;
  width: 100%;
  border: 0;
  background: none;
  padding: 2px 0;
  text-align: left;
  font-size: 12.5px;
  cursor: pointer;
}

button:hover {
  background: var(--card);
}

i {
  height: 7px;
  background: var(--gold-bright);
  border-radius: 1px;
  justify-self: end;
}

.dropped {
  text-decoration: line-through;
  color: var(--ink-3);
}

em {
  font-style: normal;
  text-align: right;
  grid-column: 4;
}

small {
  color: var(--ink-3);
  text-align: right;
}
</style>
