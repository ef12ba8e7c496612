<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { FoundWork } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useReview } from '@/state/review'

/** One work that rounds brought: what leads to it, and what the strategy does with it. */
const props = defineProps<{ work: FoundWork; selected: boolean }>()
const { t, n } = useI18n()
const review = useReview()
const blocks = computed(() =>
  review.document.blocks.filter((b) => props.work.missedBy.includes(b.id)),
)
const limits = computed(() => props.work.missedBy.filter((x) => x.startsWith('limit:')))
const ties = computed(() =>
  (['leads', 'shared', 'together'] as const).filter((x) => props.work[x] > 0),
)
</script>

<template>
  <div class="work" :class="{ sel: selected }" role="option" :aria-selected="selected">
    <i
      class="mark"
      :class="work.caught ? 'ok' : 'no'"
      role="img"
      :aria-label="t(work.caught ? 'strip.caught' : 'strip.missed')"
    />
    <span class="who">
      <span class="title">{{ work.record.title || t('record.noTitle') }}</span>
      <span class="small"
        >{{
          [
            [work.record.byline, work.record.year || ''].filter(Boolean).join(' '),
            work.record.journal,
          ]
            .filter(Boolean)
            .join(', ')
        }}
      </span>
      <span class="small ties">
        <span v-for="x in ties" :key="x" class="tie" :title="t(`found.tip.${x}`)"
          ><b>{{ work[x] }}</b> {{ t(`found.tie.${x}`, work[x]) }}</span
        >
        <span v-if="work.timesCited !== undefined" class="tie"
          ><b>{{ work.timesCited }}</b> {{ t('found.tie.cited', work.timesCited) }}</span
        >
        <span v-if="work.score !== undefined" class="tie" :title="t('found.tip.alike')"
          ><b>{{ n(work.score, 'one') }}</b> {{ t('found.tie.alike') }}</span
        >
        <b v-if="work.retracted" class="wrong">{{ t('found.retracted') }}</b>
        <b v-if="work.corrected">{{ t('found.corrected') }}</b>
        <span v-if="work.later" class="wrong">{{ t('found.later') }}</span>
        <span v-if="work.shelved">{{ t('shelf.on') }}</span>
        <b v-if="work.verdict">{{ t(`found.verdict.${work.verdict}`) }}</b>
      </span>
    </span>
    <span v-if="blocks.length || limits.length" class="by" :title="t('found.missedBy')">
      <BlockStamp v-for="b in blocks" :key="b.id" :block="b.id" :size="18" />
      <span v-for="l in limits" :key="l" class="small">{{ t('coverage.limits') }}</span>
    </span>
  </div>
</template>

<style scoped>
.work {
  display: grid;
  grid-template-columns: 15px minmax(0, 1fr) auto;
  gap: 9px;
  padding: 7px 8px;
  border-bottom: 1px solid var(--line-soft);
  cursor: default;
}

.work.sel {
  background: var(--gold-soft);
}

.mark {
  width: 13px;
  height: 13px;
  margin-top: 3px;
  border-radius: 3px;
}

.mark.ok {
  background: var(--ink);
}

.mark.no {
  border: 1.5px solid var(--miss);
}

.who {
  min-width: 0;
}

.who > span {
  display: block;
}

.ties {
  display: flex !important;
  flex-wrap: wrap;
  gap: 0 10px;
}

.wrong {
  color: var(--miss);
}

.by {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  align-content: flex-start;
  max-width: 64px;
  justify-content: flex-end;
}
</style>
