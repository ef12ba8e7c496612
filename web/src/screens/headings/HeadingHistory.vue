<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Block, HeadingWhole } from '@/api/client'
import { useReader } from '@/parts/reader'
import { newTerm } from '@/state/review'
import NoteText from './NoteText.vue'

/** Since when a heading is given, and what was given before: that can be taken too, for the years before. */
const older = defineModel<string[]>({ required: true })
const props = defineProps<{ whole: HeadingWhole; block?: Block }>()
const emit = defineEmits<{ look: [label: string] }>()
const { t, n } = useI18n()
const reader = useReader()

type Older = HeadingWhole['before'][number]
function open(o: Older) {
  reader.list(
    {
      kind: 'term',
      term: newTerm({ kind: 'heading', heading: o.label, until: o.until || undefined }),
    },
    o.label,
  )
}
function toggle(label: string) {
  older.value = older.value.includes(label)
    ? older.value.filter((l) => l !== label)
    : [...older.value, label]
}
const figures = (o: Older) =>
  o.until
    ? t('headings.beforeFigures', { n: n(o.records, 'whole'), year: o.until }, o.records)
    : t('headings.beforeAll', { n: n(o.records, 'whole') }, o.records)
void props
</script>

<template>
  <div class="history small">
    <p v-if="whole.retired" class="miss">{{ t('headings.retired') }}</p>
    <p v-if="whole.now.length">
      {{ t('headings.now') }}
      <button v-for="l in whole.now" :key="l" class="link named" @click="emit('look', l)">
        {{ l }}
      </button>
    </p>
    <p v-if="whole.since || whole.before.length" class="row line">
      <span v-if="whole.since">{{ t('headings.since', { year: whole.since }) }}</span>
      <template v-if="whole.before.length">
        <span>{{ t('headings.before') }}</span>
        <span v-for="o in whole.before" :key="o.label" class="row line">
          <button class="link named" @click="emit('look', o.label)">{{ o.label }}</button>
          <span v-if="whole.counted"
            >(<button class="link" :disabled="!o.records" @click="open(o)">{{ figures(o) }}</button
            >, {{ t('headings.beforeKeys', { n: n(o.keys, 'whole') }, o.keys) }})</span
          >
          <span v-if="o.taken && block">{{
            t('headings.beforeTaken', { block: block.name })
          }}</span>
          <label v-else-if="block" class="row tick"
            ><input
              type="checkbox"
              :checked="older.includes(o.label)"
              @change="toggle(o.label)"
            />{{
              o.until ? t('headings.beforeTake', { year: o.until }) : t('headings.beforeTakeAll')
            }}</label
          >
        </span>
      </template>
    </p>
    <NoteText
      v-else-if="whole.historyNote"
      :text="whole.historyNote"
      :named="whole.named"
      @look="emit('look', $event)"
    />
  </div>
</template>

<style scoped>
.line {
  gap: 5px;
  flex-wrap: wrap;
}

.tick {
  gap: 5px;
  margin-left: 4px;
}

.named {
  text-decoration: underline;
}

.miss {
  color: var(--miss);
}
</style>
