<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { CoveringHeading } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { decisionKey, useReview } from '@/state/review'
import { useProposed } from './proposed'

/** What the sample and the key studies point to by themselves, where no word is looked up. */
defineProps<{ selected: string }>()
const emit = defineEmits<{ look: [label: string] }>()
const { t, n } = useI18n()
const review = useReview()

const found = useProposed()
const keys = (c: CoveringHeading) => t('headings.keysOf', { n: c.keys }, c.keys)
const lists = computed(() => {
  const p = found.proposed.value
  if (!p) return []
  return [
    {
      title: t('headings.fromKeys'),
      tip: t('headings.fromKeysTip', { n: p.indexed }, p.indexed),
      rows: p.keys.map((c) => ({ c, says: `${keys(c)}, ${n(c.records, 'whole')}` })),
    },
    {
      title: t('headings.fromShared'),
      tip: t('headings.fromSharedTip'),
      rows: p.shared.map((c) => ({ c, says: keys(c) })),
    },
    {
      title: t('headings.fromSample'),
      tip: t('headings.fromSampleTip'),
      rows: p.sample.map((c) => ({
        c,
        says: `${n(c.share, 'share')}, ×${n(c.lift, c.lift < 10 ? 'one' : 'whole')}`,
      })),
    },
  ].filter((l) => l.rows.length)
})
const blocks = (key: string) => review.kept.get(decisionKey('headings', key)) ?? []
</script>

<template>
  <v-progress-linear
    v-if="found.isPending.value"
    indeterminate
    color="primary"
    :aria-label="t('headings.leads')"
  />
  <section v-for="l in lists" :key="l.title" :aria-label="l.title">
    <h2 class="sect" :title="l.tip">{{ l.title }}</h2>
    <ul>
      <li v-for="r in l.rows" :key="r.c.label" :class="{ sel: r.c.label === selected }">
        <button
          class="link"
          :aria-current="r.c.label === selected"
          @click="emit('look', r.c.label)"
        >
          {{ r.c.label }}
        </button>
        <BlockStamp v-for="b in blocks(r.c.key)" :key="b" :block="b" :size="14" />
        <span class="small">{{ r.says }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  padding: 8px 10px 3px;
}

li {
  display: flex;
  gap: 6px;
  align-items: baseline;
  padding: 3px 10px;
}

li .link {
  flex: 1;
  min-width: 0;
  text-align: left;
}

li .small {
  white-space: nowrap;
}

li.sel {
  background: var(--gold-soft);
}
</style>
