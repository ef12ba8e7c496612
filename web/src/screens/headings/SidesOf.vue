<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, HeadingWhole, RecordSet } from '@/api/client'
import { newTerm } from '@/state/review'
import { useThrough } from './through'
import SampleMark from '@/parts/SampleMark.vue'

/** What the heading finds that the words of its block miss, and the other way round: both sides to read. */
const props = defineProps<{ whole: HeadingWhole; block: Block }>()
const { t, n } = useI18n()
const through = useThrough()

const heading = computed<RecordSet>(() => ({
  kind: 'term',
  term: newTerm({ kind: 'heading', heading: props.whole.heading, narrower: true, id: 'side' }),
}))
const words = computed<RecordSet>(() => ({ kind: 'block', block: props.block.id, words: true }))
const sides = computed(() => {
  const s = props.whole.sides!
  const block = props.block.name
  return [
    {
      key: 'heading',
      n: s.heading.records,
      keys: s.heading.keys,
      says: t('headings.sidesHeading'),
      set: { kind: 'less', of: heading.value, less: words.value } as RecordSet,
    },
    {
      key: 'both',
      n: s.both.records,
      keys: s.both.keys,
      says: t('headings.sidesBoth'),
      set: { kind: 'within', of: heading.value, in: words.value } as RecordSet,
    },
    {
      key: 'words',
      n: s.words.records,
      keys: s.words.keys,
      says: t('headings.sidesWords', { block }),
      set: { kind: 'less', of: words.value, less: heading.value } as RecordSet,
    },
  ]
})
const of = computed(() => Math.max(1, ...[sides.value.reduce((sum, s) => sum + s.n, 0)]))
</script>

<template>
  <section v-if="of > 1" class="sides" :aria-label="t('headings.sides', { block: block.name })">
    <h3 class="sect">{{ t('headings.sides', { block: block.name }) }}<SampleMark /></h3>
    <div class="bar" aria-hidden="true">
      <i v-for="s in sides" :key="s.key" :class="s.key" :style="{ flexGrow: s.n / of }" />
    </div>
    <p class="row small">
      <span v-for="s in sides" :key="s.key"
        ><button class="link" :disabled="!s.n" @click="through.list(s.set, s.says)">
          <b>{{ n(s.n, 'whole') }}</b></button
        >{{ ' ' }}{{ s.says
        }}<template v-if="s.keys"
          >, {{ t('headings.keysOf', { n: s.keys }, s.keys) }}</template
        ></span
      >
    </p>
  </section>
</template>

<style scoped>
.sides {
  margin-top: 8px;
}

.bar {
  display: flex;
  height: 8px;
  margin: 4px 0;
  border-radius: 2px;
  overflow: hidden;
  background: var(--line-soft);
}

.heading {
  background: var(--block-b);
}

.both {
  background: var(--plum);
}

.words {
  background: var(--sand);
}

.row {
  gap: 16px;
  flex-wrap: wrap;
}
</style>
