<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Suit } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { textual } from '@/state/decide'
import { useReview } from '@/state/review'
import type { Candidate } from './candidates'

/** The cells of one row: apart from the list, so that a key press draws only the rows that changed. */
const props = defineProps<{
  candidate: Candidate
  hasContrast: boolean
  hasKeys: boolean
  hasNarrower: boolean
  most: number
  blocks: number
  suit?: Suit
}>()

const { t, n } = useI18n()
const review = useReview()
const mono = computed(() => textual(props.candidate.facet))
const letter = (id: string) => review.document.blocks.find((b) => b.id === id)?.name ?? ''
const lift = (x?: number) => (x === undefined ? '' : `${n(x, x < 99.95 ? 'one' : 'whole')}×`)
</script>

<template>
  <span class="item cut" :class="{ mono }" :title="candidate.item"
    >{{ candidate.item
    }}<small v-if="candidate.forms" :title="candidate.forms.join(', ')"
      >+{{ candidate.forms.length - 1 }}</small
    ><small
      v-if="candidate.row.heading"
      :title="t('tree.entryOf', { heading: candidate.row.heading })"
      >= {{ candidate.row.heading }}</small
    ></span
  >
  <span class="fig"
    ><i
      class="bar"
      :style="{ width: `${Math.max(2, (candidate.row.records / most) * 40)}px` }"
    /><b>{{ n(candidate.row.records, 'whole') }}</b></span
  >
  <span v-if="hasNarrower" class="fig">{{ n(candidate.row.withNarrower ?? 0, 'whole') }}</span>
  <template v-if="hasContrast">
    <span class="fig">{{ lift(candidate.row.lift) }}</span>
    <span class="fig">{{ n(candidate.row.pull ?? 0, 'whole') }}</span>
  </template>
  <span v-if="hasKeys" class="fig" :class="{ nil: !candidate.row.keys }">{{
    candidate.row.keys
  }}</span>
  <span class="end">
    <BlockStamp v-for="b in candidate.blocks.slice(0, 2)" :key="b" :block="b" />
    <span v-if="candidate.state === 'parked'" class="small">{{ t('state.parkedShort') }}</span>
    <span v-else-if="candidate.state === 'dropped'" class="small">{{
      t('state.droppedShort')
    }}</span>
    <template v-else-if="candidate.state === 'open'"
      ><span
        v-if="suit?.block"
        class="suit"
        :title="t('suit.proposed', { block: letter(suit.block) })"
        ><BlockStamp :block="suit.block" :size="17" ghost /></span
      ><span
        v-else-if="suit?.inside?.length"
        class="inside"
        :title="t('suit.inside', { block: suit.inside.map(letter).join(', ') })"
        ><BlockStamp v-for="b in suit.inside.slice(0, 2)" :key="b" :block="b" :size="13" /></span
      ><kbd v-for="i in blocks" :key="i">{{ i }}</kbd></template
    >
  </span>
</template>

<style scoped>
span {
  padding: 0 8px;
}

small {
  margin-left: 5px;
  font: 11px var(--ui);
  color: var(--ink-3);
}

.fig {
  text-align: right;
  white-space: nowrap;
}

.bar {
  display: inline-block;
  height: 7px;
  background: var(--plum);
  border-radius: 1px;
  vertical-align: 1px;
  margin-right: 6px;
}

.nil {
  color: var(--ink-3);
}

.end {
  display: flex;
  justify-content: flex-end;
  gap: 3px;
  padding: 0 4px 0 0;
  white-space: nowrap;
}

.end span {
  padding: 0;
}

/* What it suits, in gold until it is taken there. */
.suit {
  display: inline-flex;
  border-radius: 5px;
  box-shadow: 0 0 0 1.5px var(--gold-bright);
}

.suit :deep(.stamp) {
  border-color: transparent;
  background: var(--white);
}

.inside {
  display: inline-flex;
  align-items: center;
  gap: 2px;
  opacity: 0.55;
}

.dropped > .item,
.dropped > .fig {
  color: var(--ink-3);
  text-decoration: line-through;
  text-decoration-color: var(--sand);
}

.dropped .bar {
  opacity: 0.35;
}
</style>
