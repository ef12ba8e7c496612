<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { stripMarks, useBench } from '@/state/bench'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import BlockStamp from './BlockStamp.vue'
import CatchStrip from './CatchStrip.vue'
import TakeSeeds from './TakeSeeds.vue'
import { useMade } from './made'
import { useReader } from './reader'

/** What each block finds and which key studies it catches, now or with what is rested on. */
const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const bench = useBench()
const made = useMade()
const reader = useReader()

const blocks = computed(() =>
  review.document.blocks.map((b) => {
    const now = bench.now?.blocks.find((x) => x.id === b.id)
    const ahead = bench.ahead?.blocks.find((x) => x.id === b.id)
    const on = b.terms.filter((term) => term.on)
    const headings = on.filter((term) => term.kind === 'heading').length
    return {
      ...b,
      records: (ahead ?? now)?.records,
      there: sources.counted?.blocks[b.id],
      changed: ahead && now && ahead.records !== now.records,
      marks: now ? stripMarks(now.caught, ahead?.caught, bench.now?.notHere) : [],
      words: on.length - headings,
      headings,
      proposal: bench.ahead && bench.resting?.block === b.id ? bench.resting.label : '',
    }
  }),
)
</script>

<template>
  <ul class="blocks">
    <li v-for="b in blocks" :key="b.id">
      <div class="hd">
        <BlockStamp :block="b.id" /><span class="name">{{ b.concept || t('block.unnamed') }}</span>
        <button
          v-if="sources.chosen"
          class="open"
          :disabled="!b.there"
          :title="t('counted.made', { source: sources.chosen.name })"
          @click="b.there && made.show(b.there, b.concept, sources.chosen)"
        >
          {{ b.there ? n(b.there.records, 'whole') : t('counted.notCounted')
          }}<sup v-if="b.there?.notes.length">*</sup>
        </button>
        <button
          v-else-if="b.records !== undefined"
          class="open"
          :class="{ gold: b.changed }"
          :title="t('bench.openRecords')"
          @click="reader.list({ kind: 'block', block: b.id }, b.concept)"
        >
          {{ n(b.records, 'whole') }}
        </button>
      </div>
      <p class="small">
        {{
          t('bench.terms', {
            words: t('bench.words', b.words),
            headings: t('bench.headings', b.headings),
          })
        }}<template v-if="b.negated"> · {{ t('bench.negated') }}</template
        ><template v-if="!b.searched"> · {{ t('bench.notSearched') }}</template
        ><b v-if="b.proposal" class="gold"> · {{ b.proposal }}</b>
      </p>
      <TakeSeeds :block="b" />
      <CatchStrip v-if="b.marks.length" :marks="b.marks" :label="b.concept" />
    </li>
  </ul>
</template>

<style scoped>
.open {
  border: 0;
  background: none;
  cursor: pointer;
  padding: 0 2px;
  color: inherit;
}

.open:hover {
  text-decoration: underline;
}

.open:disabled {
  cursor: default;
}

.blocks {
  border-top: 1px solid var(--line-soft);
}

.blocks li {
  padding: 11px 0 12px;
  border-bottom: 1px solid var(--line-soft);
}

.hd {
  display: flex;
  align-items: center;
  gap: 8px;
}

.hd .name {
  font-weight: 600;
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}

.hd .open {
  color: var(--ink-2);
}

.hd .open.gold {
  color: var(--gold-deep);
}

.blocks p {
  margin-top: 2px;
}

sup {
  color: var(--gold-deep);
}
</style>
