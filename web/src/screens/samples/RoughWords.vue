<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Previewed, RoughConcept, Source } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useMade } from '@/parts/made'
import { useReview } from '@/state/review'

/** Rough words for each concept, and what they find at the source. */
const props = defineProps<{
  concepts: RoughConcept[]
  found?: Previewed
  settled: boolean
  source?: Source
}>()
const rough = defineModel<Record<string, string>>({ required: true })

const { t, n } = useI18n()
const review = useReview()
const made = useMade()
const countOf = (name: string) => props.found?.concepts.find((c) => c.name === name)
</script>

<template>
  <div class="rough">
    <template v-for="b in review.document.blocks" :key="b.id">
      <BlockStamp :block="b.id" />
      <label
        :for="`rough-${b.id}`"
        class="cut"
        :class="{ dim: !concepts.find((c) => c.name === b.name)?.words.length }"
        >{{ b.concept || t('block.unnamed') }}</label
      >
      <input
        :id="`rough-${b.id}`"
        v-model="rough[b.id]"
        class="field mono"
        :placeholder="t('draw.leftOut')"
        :aria-label="t('draw.words', { concept: b.concept || b.name })"
        maxlength="4000"
        spellcheck="false"
        autocomplete="off"
      />
      <button
        v-if="countOf(b.name)?.count"
        class="open num"
        :class="{ stale: !settled, nil: !countOf(b.name)?.count?.records }"
        :title="t('counted.made', { source: source?.name ?? '' })"
        @click="made.show(countOf(b.name)!.count!, b.concept, source!)"
      >
        {{ n(countOf(b.name)!.count!.records, 'whole') }}
      </button>
      <span v-else />
      <p
        v-for="(r, i) in countOf(b.name)?.refused ?? []"
        :key="`${b.id}-${i}`"
        class="wrong small wide"
        role="alert"
      >
        {{ r.message }}
      </p>
    </template>
  </div>
</template>

<style scoped>
.rough {
  display: grid;
  grid-template-columns: 24px minmax(80px, 142px) minmax(0, 1fr) auto;
  gap: 6px 9px;
  align-items: center;
}

.rough .field {
  min-width: 0;
}

.wide {
  grid-column: 3 / 5;
}

.dim {
  color: var(--ink-2);
}

.open {
  border: 0;
  background: none;
  padding: 0;
  font-weight: 650;
  cursor: pointer;
  text-align: right;
}

.open:hover {
  text-decoration: underline;
}

.stale {
  opacity: 0.55;
}

.open.nil {
  color: var(--miss);
}
</style>
