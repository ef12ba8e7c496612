<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useInstead } from '@/parts/instead'
import { useReader } from '@/parts/reader'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import type { Line } from './lines'

/** One numbered line: as it is meant with its figures, and beside it as it is typed; what differs is noted below. */
const props = defineProps<{ line: Line; folded: number }>()
const emit = defineEmits<{ fold: []; copy: [] }>()
const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const reader = useReader()
const instead = useInstead()

const block = computed(() => review.document.blocks.find((b) => b.id === props.line.block))
const columns = computed(
  () =>
    2 + Number(!!sources.chosen) + Number(!!review.sample) + Number(review.keyStudies.length > 0),
)
function open() {
  const l = props.line
  const term = block.value?.terms.find((x) => x.id === l.term)
  if (term) reader.list({ kind: 'term', term }, l.meant)
  else if (l.kind === 'block') reader.list({ kind: 'block', block: l.block! }, l.meant)
  else reader.list({ kind: 'strategy' }, l.meant)
}
</script>

<template>
  <tr :class="{ join: line.kind !== 'term', lit: line.notes.length }">
    <td class="number">{{ line.number }}</td>
    <td class="left">
      <template v-if="line.kind === 'block'">
        <button
          class="link fold"
          :aria-expanded="!folded"
          :aria-label="
            t(folded ? 'strategy.unfold' : 'strategy.fold', { block: block?.name ?? '' })
          "
          @click="emit('fold')"
        >
          {{ folded ? '▸' : '▾' }}</button>{{ ' ' }}<BlockStamp :block="line.block" :size="16" />{{
          ' '
        }}<b>{{ block?.concept || line.meant }}</b
        >{{ ' '
        }}<span class="small">{{
          folded ? t('strategy.folded', { n: folded }, folded) : line.meant
        }}</span>
      </template>
      <b v-else-if="line.kind !== 'term'">{{ line.meant }}</b>
      <template v-else>
        <BlockStamp :block="line.block" :size="14" />{{ ' '
        }}<span :class="{ mono: !line.heading, heading: line.heading }">{{ line.meant }}</span
        >{{ ' ' }}<span v-if="line.field" class="small">{{ t(`field.${line.field}`) }}</span>
        <span v-if="line.note" class="small said">{{ line.note }}</span>
      </template>
    </td>
    <td v-if="sources.chosen">{{ line.there === undefined ? '' : n(line.there, 'whole') }}</td>
    <td v-if="review.sample">
      <button v-if="line.records" class="link" @click="open">
        {{ n(line.records, 'whole') }}</button><template v-else-if="line.records === 0">0</template>
    </td>
    <td v-if="review.keyStudies.length">{{ line.caught ?? '' }}</td>
    <td class="left typed mono">{{ line.text }}</td>
    <td>
      <button
        class="link small"
        :aria-label="t('strategy.copyLine', { n: line.number })"
        :title="t('strategy.copyLine', { n: line.number })"
        @click="emit('copy')"
      >
        <svg class="copy" viewBox="0 0 14 14" aria-hidden="true">
          <rect x="1.5" y="4" width="7.5" height="8.5" rx="1" />
          <path d="M4.5 4V1.5H12V10H9" />
        </svg>
      </button>
    </td>
  </tr>
  <tr v-for="(x, i) in line.notes" :key="i" class="noted">
    <td :colspan="columns" />
    <td class="left typed small" colspan="2">{{ instead(x) }}</td>
  </tr>
</template>

<style scoped>
.number {
  color: var(--ink-2);
  font-size: 12px;
  width: 26px;
}

.join td {
  background: var(--card);
}

td.typed {
  border-left: 1px solid var(--line);
  padding-left: 14px;
  overflow-wrap: anywhere;
  max-width: 330px;
  font-size: 12.5px;
}

.lit td.typed {
  background: var(--gold-soft);
}

.noted td {
  padding-top: 0;
  border-bottom: 1px solid var(--line-soft);
}

.noted .typed {
  color: var(--gold-deep);
}

.heading {
  font-weight: 650;
}

.said {
  display: block;
}

.fold {
  width: 16px;
}

.copy {
  display: block;
  width: 13px;
  height: 13px;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.3;
}
</style>
