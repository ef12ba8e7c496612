<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { figures, useFigure } from '@/figures'
import BlockStamp from '@/parts/BlockStamp.vue'
import MarkedText from '@/parts/MarkedText.vue'
import { useReader } from '@/parts/reader'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import BringBack from './BringBack.vue'
import KnownOfStudy from './KnownOfStudy.vue'

/** One key study: its words marked by block, what holds it back, and what would bring it back at which price. */
const props = defineProps<{
  study: number
  heldBackBy: string[]
  caught: boolean
  half?: string
  away?: boolean
}>()

const { t } = useI18n()
const review = useReview()
const sources = useSources()
const reader = useReader()

const rescue = useFigure(figures.rescue, () => ({ study: props.study }), { keep: true })
const record = computed(() => rescue.data.value?.record)
const blocks = computed(() =>
  (rescue.data.value?.blocks ?? []).flatMap((b) => {
    const block = review.document.blocks.find((x) => x.id === b.block)
    return block ? [{ of: b, terms: b.terms, missed: b.missed, block }] : []
  }),
)
const limits = computed(() =>
  props.heldBackBy.filter((h) => h.startsWith('limit:')).map((h) => h.slice(6)),
)
/** Why it carries no headings: the source has not indexed it, or the file brought none. */
const unindexed = computed(() => {
  const known = rescue.data.value?.known
  if (!known || !record.value || record.value.indexed) return undefined
  const by = known.sources.find((s) => s.source === known.by)
  return by ? t('known.notIndexedAt', { source: by.name }) : t('known.broughtNone')
})
const byline = computed(() =>
  [
    record.value?.authors.slice(0, 4).join('; '),
    record.value?.journal,
    record.value?.year || undefined,
    unindexed.value,
  ]
    .filter(Boolean)
    .join(' · '),
)
</script>

<template>
  <section v-if="record" class="panel" :aria-label="t('coverage.study')">
    <h2 class="display">
      <button :title="t('panel.openRecord')" @click="reader.one(record.id, t('keys.one'))">
        <MarkedText :pieces="record.title" />
      </button>
    </h2>
    <p class="small">{{ byline }}</p>
    <KnownOfStudy v-if="rescue.data.value" :known="rescue.data.value.known" />
    <p class="abstract">
      <MarkedText :pieces="record.abstract" /><em v-if="!record.abstract.length" class="small">{{
        t('record.noAbstract')
      }}</em>
    </p>
    <p v-if="record.headings.length" class="small">
      <b>{{ t('record.headings') }}</b>{{ ' ' }}
      <span v-for="(h, i) in record.headings" :key="i"
        >{{ i ? ' · ' : '' }}{{ h.label
        }}<BlockStamp v-for="b in h.blocks" :key="b" class="in" :name="b" :size="14"
      /></span>
    </p>
    <ul class="finds">
      <li v-for="b in blocks" :key="b.block.id" class="small">
        <BlockStamp :block="b.block.id" :size="15" />
        {{
          b.terms.length
            ? t('coverage.finds', { n: b.terms.length }, b.terms.length)
            : t('coverage.findsNothing')
        }}
        <span v-if="b.terms.length" class="mono">{{ b.terms.join(', ') }}</span>
      </li>
      <li v-for="l in limits" :key="l" class="small wrong">
        {{ t('coverage.dropped', { limit: t(`coverage.limit.${l}`) }) }}
      </li>
    </ul>
    <BringBack
      v-for="b in blocks.filter((x) => x.missed)"
      :key="`${study} ${b.block.id}`"
      :of="b.of"
      :block="b.block"
      :half="half"
    />
    <p v-if="away" class="small">
      {{ t('holding.notHere', { source: sources.chosen?.name ?? '' }) }}
    </p>
    <p v-else-if="caught" class="small">{{ t('coverage.isCaught') }}</p>
  </section>
</template>

<style scoped>
.panel {
  border-left: 1px solid var(--line);
  padding: 0 0 14px 16px;
  overflow-y: auto;
  min-width: 0;
}

h2 {
  font-size: 15px;
  line-height: 1.3;
  font-weight: 600;
}

h2 button {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  cursor: pointer;
}

.abstract {
  margin: 8px 0;
  line-height: 1.55;
  font-size: 13px;
  overflow-wrap: anywhere;
}

.in {
  margin-left: 3px;
}

.finds {
  margin-top: 6px;
  display: grid;
  gap: 3px;
}

.wrong {
  color: var(--miss);
}
</style>
