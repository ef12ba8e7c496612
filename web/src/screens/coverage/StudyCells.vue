<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Block, CoverageStudy, KeyStudy } from '@/api/client'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** A key study in the grid: who it is, which blocks find it, whether it is within the limits, and caught. */
defineProps<{ study: KeyStudy & CoverageStudy; blocks: (Block & { i: number })[] }>()

const { t } = useI18n()
const review = useReview()
const sources = useSources()
</script>

<template>
  <span class="who"
    ><span class="cut">{{ study.title || t('record.noTitle') }}</span
    ><span class="small">{{
      [
        [study.byline, study.year || undefined].filter(Boolean).join(' '),
        study.half && t(`halves.${study.half}`),
        review.shelf.has(study.record) && t('shelf.on'),
        !study.indexed &&
          (study.by
            ? t('known.notIndexedAt', { source: sources.chosen?.name ?? '' })
            : t('known.broughtNone')),
        study.notHere && t('holding.notHere', { source: sources.chosen?.name ?? '' }),
      ]
        .filter(Boolean)
        .join(' · ')
    }}</span></span
  >
  <span v-for="b in blocks" :key="b.id" class="c">
    <i
      v-if="study.blocks[b.i]"
      class="ok"
      :class="{ dim: !b.searched, bad: b.negated }"
      role="img"
      :aria-label="t('coverage.by', { block: b.name, n: study.blocks[b.i] }, study.blocks[b.i])"
      >{{ study.blocks[b.i] }}</i
    >
    <i
      v-else
      :class="b.searched && !b.negated && !study.notHere ? 'no' : 'off'"
      role="img"
      :aria-label="t('coverage.notBy', { block: b.name })"
    />
  </span>
  <template v-if="study.notHere"
    ><span /><span class="c"><i class="away" role="img" :aria-label="t('strip.away')" /></span
  ></template>
  <template v-else
    ><span class="c"
      ><i
        :class="study.limits ? 'ok' : 'no'"
        role="img"
        :aria-label="t(study.limits ? 'coverage.inside' : 'coverage.outside')"
    /></span>
    <span class="c"
      ><i
        :class="study.caught ? 'ok' : 'no'"
        role="img"
        :aria-label="t(study.caught ? 'strip.caught' : 'strip.missed')" /></span
  ></template>
</template>

<style scoped>
.who {
  min-width: 0;
}

.who > span {
  display: block;
}

.c {
  display: grid;
  place-items: center;
}

.ok,
.no,
.off {
  width: 15px;
  height: 15px;
  border-radius: 3px;
  font: 600 10px/15px var(--ui);
  text-align: center;
}

.ok {
  background: var(--ink);
  color: #fff;
}

.ok.dim {
  background: none;
  color: var(--ink-2);
  border: 1px dashed var(--ink-3);
  line-height: 13px;
}

.ok.bad {
  background: var(--miss);
}

.no {
  border: 2px solid var(--miss);
}

.off {
  border: 1px dashed var(--ink-3);
}

.c .away {
  width: 15px;
  height: 15px;
  border-radius: 3px;
  border: 1px solid #c9bfa9;
  background: repeating-linear-gradient(135deg, #c9bfa9 0 1.6px, transparent 1.6px 3.6px);
}
</style>
