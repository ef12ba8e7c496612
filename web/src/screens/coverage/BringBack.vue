<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, BlockRescue, RescueCandidate } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import DropMenu from '@/parts/DropMenu.vue'
import OverNote from '@/parts/OverNote.vue'
import WithTip from '@/parts/WithTip.vue'
import { useReader } from '@/parts/reader'
import { useBench } from '@/state/bench'
import { itemOf, useDecide } from '@/state/decide'
import { useReview } from '@/state/review'
import NearMisses from './NearMisses.vue'
import SampleMark from '@/parts/SampleMark.vue'

/** What would bring a key study back to a block that misses it, at which price, the likeliest to belong there first. */
const props = defineProps<{ of: BlockRescue; block: Block; half?: string }>()

const { t, n } = useI18n()
const review = useReview()
const bench = useBench()
const reader = useReader()
const { termOf, add, addEdits } = useDecide()

/** What belongs to the block, what suits another better, and what is too rare to tell. */
const own = computed(() =>
  props.of.candidates.filter((c) => c.suit === undefined || (c.suit > 0 && !c.suits)),
)
/** Those that stand under none, and, where it is opened, behind each its shorter and longer forms. */
const formsOf = (c: RescueCandidate) =>
  c.kind === 'text' ? own.value.filter((f) => f.under === c.item) : []
const opened = ref(new Set<string>())
const heads = computed(() =>
  own.value.filter((c) => !c.under || !own.value.some((h) => h.item === c.under && !h.under)),
)
const rows = computed(() =>
  heads.value
    .slice(0, list.value)
    .flatMap((c) => [c, ...(opened.value.has(c.item) ? formsOf(c) : [])]),
)
function toggle(item: string) {
  const next = new Set(opened.value)
  if (!next.delete(item)) next.add(item)
  opened.value = next
}
const others = computed(() => ({
  elsewhere: props.of.candidates.filter((c) => c.suits),
  rare: props.of.candidates.filter((c) => c.rare),
  none: props.of.candidates.filter((c) => c.suit === 0 && !c.suits && !c.rare),
}))
const step = 12
const all = ref(false)
const list = computed(() => (all.value ? Infinity : step))

const blockOf = (c: RescueCandidate) =>
  review.document.blocks.find((b) => b.id === c.suits) ?? props.block

function rest(c?: RescueCandidate, block = props.block) {
  const edits = c ? addEdits(block, termOf(itemOf(c))) : []
  bench.rest(c && edits.length ? { edits, label: `+ ${c.item}`, block: block.id } : undefined)
}

function take(c: RescueCandidate, block = props.block) {
  bench.rest(undefined)
  add(block, termOf(itemOf(c)), itemOf(c))
}
</script>

<template>
  <NearMisses v-if="of.near.length" :block="block" :near="of.near" />
  <h3 class="sect">{{ t('coverage.bringBack', { block: block.name }) }}<SampleMark /></h3>
  <OverNote v-if="review.sample" :block="block" :over="of.over" :about="t('free.prices')" />
  <table v-if="own.length" class="figures proposes">
    <thead>
      <tr>
        <th class="left">{{ t('coverage.candidate') }}</th>
        <th>
          <WithTip v-slot="{ describedBy }" :text="t('formula.rescues')"
            ><span tabindex="0" :aria-describedby="describedBy">{{
              t('figure.rescues')
            }}</span></WithTip
          >
        </th>
        <th>
          <WithTip v-slot="{ describedBy }" :text="t('formula.price')"
            ><span tabindex="0" :aria-describedby="describedBy">{{
              t('figure.price')
            }}</span></WithTip
          >
        </th>
        <th>
          <WithTip v-slot="{ describedBy }" :text="t('formula.suit')"
            ><span tabindex="0" :aria-describedby="describedBy">{{
              t('figure.suit')
            }}</span></WithTip
          >
        </th>
        <th>
          <WithTip v-slot="{ describedBy }" :text="t('formula.worth')"
            ><span tabindex="0" :aria-describedby="describedBy">{{
              t('figure.worth')
            }}</span></WithTip
          >
        </th>
        <th>
          <span class="visually-hidden">{{ t('samples.acts') }}</span>
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="c in rows" :key="c.kind + c.item" @mouseenter="rest(c)" @mouseleave="rest()">
        <td class="left" :class="{ under: c.under }">
          <b v-if="c.kind === 'heading'">{{ c.item }}</b><span v-else class="mono">{{
            c.item
          }}</span>
          <em v-if="c.doubtful" class="small" :title="t('coverage.doubtfulTip')">{{
            t('coverage.doubtful')
          }}</em>
          <button
            v-if="!c.under && formsOf(c).length"
            class="link small"
            :aria-expanded="opened.has(c.item)"
            :aria-label="
              t('blind.formsOf', { n: formsOf(c).length, item: c.item }, formsOf(c).length)
            "
            @click="toggle(c.item)"
          >
            {{ t('blind.forms', { n: formsOf(c).length }, formsOf(c).length) }}
          </button>
        </td>
        <td class="num">{{ c.rescues }}</td>
        <td>
          <button
            v-if="c.price !== undefined"
            class="link"
            :title="t('bench.openRecords')"
            @click="reader.list({ kind: 'term', term: termOf(itemOf(c)) }, c.item)"
          >
            +{{ n(c.price, 'whole') }}
          </button>
        </td>
        <td>{{ c.suit === undefined ? '' : n(c.suit, 'two') }}</td>
        <td>
          {{ c.worth === undefined ? '' : n(c.worth * 1000, c.worth < 0.00995 ? 'one' : 'whole') }}
        </td>
        <td class="acts">
          <button
            class="btn bare"
            :aria-label="t('coverage.addOne', { item: c.item, block: block.name })"
            @focus="rest(c)"
            @blur="rest()"
            @click="take(c)"
          >
            {{ t('act.add') }}</button><DropMenu :item="itemOf(c)" />
        </td>
      </tr>
    </tbody>
  </table>
  <p v-else class="small">
    {{
      t(
        half === 'test'
          ? 'halves.notMined'
          : of.candidates.length
            ? 'coverage.noneSuits'
            : 'coverage.noCandidates',
        { block: block.name },
      )
    }}
  </p>
  <button v-if="heads.length > list" class="btn bare" @click="all = true">
    {{ t('coverage.more', { n: heads.length - step }) }}
  </button>
  <details v-for="(those, kind) in others" v-show="those.length" :key="kind">
    <summary class="small">
      {{ t(`coverage.${kind}`, { n: n(those.length, 'whole'), block: block.name }, those.length) }}
    </summary>
    <ul class="others">
      <li v-for="c in those" :key="c.kind + c.item">
        <button
          class="chip"
          :aria-label="t('coverage.addOne', { item: c.item, block: blockOf(c).name })"
          @focus="rest(c, blockOf(c))"
          @blur="rest()"
          @mouseenter="rest(c, blockOf(c))"
          @mouseleave="rest()"
          @click="take(c, blockOf(c))"
        >
          <BlockStamp v-if="c.suits" :block="c.suits" :size="14" /><b v-if="c.kind === 'heading'">{{
            c.item
          }}</b
          ><span v-else class="mono">{{ c.item }}</span>
        </button>
      </li>
    </ul>
  </details>
</template>

<style scoped>
td.under {
  padding-left: 26px;
}

h3 {
  margin: 14px 0 2px;
}

td.left {
  overflow-wrap: anywhere;
  min-width: 114px; /* a word of usual length stays whole */
}

.acts {
  white-space: nowrap;
}

.acts :deep(.btn) {
  padding-inline: 3px;
}

details {
  margin-top: 6px;
}

.others {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin: 6px 0;
}

.proposes :is(th, td):not(.left) {
  padding-inline: 5px 0;
}
</style>
