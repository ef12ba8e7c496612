<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { RecordSet } from '@/api/client'
import NarrowNote from '@/parts/NarrowNote.vue'
import { blockColour } from '@/parts/BlockStamp.vue'
import { useBench } from '@/state/bench'
import { useReader } from '@/parts/reader'
import { useReview } from '@/state/review'

/** What each block and limit takes away from the whole: what there would be more without it. */
const { t, n } = useI18n()
const bench = useBench()
const review = useReview()
const reader = useReader()

const rows = computed(() => [
  ...(bench.now?.blocks ?? []).flatMap((b) => {
    const block = review.document.blocks.find((x) => x.id === b.id)
    return b.takenAway === undefined || !block
      ? []
      : [
          {
            key: b.id,
            what: block.negated ? `NOT ${block.name}` : block.name,
            set: { kind: 'block', block: b.id, away: true } as RecordSet,
            n: b.takenAway,
            colour: blockColour(block.name),
          },
        ]
  }),
  ...(bench.now?.limits ?? []).flatMap((l) =>
    l.takenAway === undefined
      ? []
      : [
          {
            key: l.kind,
            what: t(`coverage.limit.${l.kind}`),
            set: { kind: 'limit', limit: l.kind, away: true } as RecordSet,
            n: l.takenAway,
            colour: 'var(--ink-3)',
          },
        ],
  ),
])
const most = computed(() => Math.max(1, ...rows.value.map((r) => r.n)))
</script>

<template>
  <section v-if="rows.length" class="card" :aria-label="t('strategy.short')">
    <h2 class="sect">{{ t('strategy.short') }}</h2>
    <ul>
      <li v-for="r in rows" :key="r.key">
        <span class="small">{{ t('strategy.without', { what: r.what }) }}</span>
        <i :style="{ width: `${(r.n / most) * 100}%`, background: r.colour }" aria-hidden="true" />
        <button
          v-if="r.n"
          class="link"
          @click="reader.list(r.set, t('looked.awayTitle', { what: r.what }))"
        >
          <b>{{ t('strategy.more', { n: n(r.n, 'whole') }) }}</b>
        </button>
        <b v-else>{{ t('strategy.more', { n: '0' }) }}</b>
      </li>
    </ul>
    <NarrowNote v-if="bench.now?.narrow?.length" :narrow="bench.now.narrow" />
  </section>
</template>

<style scoped>
.card {
  padding: 10px 12px;
}

ul {
  margin-top: 6px;
  display: grid;
  gap: 4px;
}

li {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) auto;
  gap: 10px;
  align-items: center;
}

i {
  display: block;
  height: 7px;
  min-width: 1px;
}
</style>
