<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { CoveringHeading } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useProposed } from '@/screens/headings/proposed'
import { decisionKey, useReview } from '@/state/review'

/** Above the headings of a sample: which single heading, with all below it, covers most of it, and which the key studies. */
const { t, n } = useI18n()
const review = useReview()
const found = useProposed(() => review.vocabulary !== undefined)

const first = computed(() => {
  const p = found.proposed.value
  const out: { c: CoveringHeading; of: 'sample' | 'keys' }[] = []
  for (const c of p?.sample.slice(0, 2) ?? []) out.push({ c, of: 'sample' })
  const keys = p?.keys.at(-1)
  if (keys && !out.some((x) => x.c.label === keys.label)) out.push({ c: keys, of: 'keys' })
  return out
})
function says(x: (typeof first.value)[number]): string {
  if (x.of === 'keys')
    return t('harvest.coversKeys', { n: x.c.keys, of: found.proposed.value!.indexed })
  return t('harvest.coversSample', {
    share: n(x.c.share, 'share'),
    lift: n(x.c.lift, x.c.lift < 10 ? 'one' : 'whole'),
  })
}
const blocks = (key: string) => review.kept.get(decisionKey('headings', key)) ?? []
</script>

<template>
  <p v-if="first.length" class="small covering" :title="t('harvest.coversTip')">
    {{ t('harvest.covers') }}
    <span v-for="x in first" :key="x.c.label"
      ><router-link
        :to="{ name: 'headings', params: { review: review.id }, query: { label: x.c.label } }"
        >{{ x.c.label }}</router-link
      ><BlockStamp v-for="b in blocks(x.c.key)" :key="b" :block="b" :size="13" />
      {{ says(x) }}</span
    >
  </p>
</template>

<style scoped>
.covering {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  margin-top: 4px;
}

.covering span {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}

.covering a {
  color: var(--plum);
}
</style>
