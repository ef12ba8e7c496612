<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Block } from '@/api/client'
import { figures, useFigure } from '@/figures'
import BlockStamp from '@/parts/BlockStamp.vue'
import DropMenu from '@/parts/DropMenu.vue'
import OverNote from '@/parts/OverNote.vue'
import SampleMark from '@/parts/SampleMark.vue'
import WithTip from '@/parts/WithTip.vue'
import { useBench } from '@/state/bench'
import { itemOf, useDecide } from '@/state/decide'
import { useReview } from '@/state/review'

/** What all other searched blocks find and this one does not, and what there suits it. */
const props = defineProps<{ block: Block }>()
const { t, n } = useI18n()
const review = useReview()
const bench = useBench()
const { termOf, add, addEdits } = useDecide()

const others = computed(() =>
  review.document.blocks.filter((b) => b.id !== props.block.id && b.searched && !b.negated),
)
const spot = useFigure(figures.blindSpot, () => ({ block: props.block.id }), {
  enabled: () => review.sample !== undefined && others.value.length > 0,
  keep: true,
})
type Word = NonNullable<typeof spot.data.value>['words'][number]
/** The words that stand under none, each with its shorter and longer forms. */
const heads = computed(() => {
  const words = spot.data.value?.words ?? []
  return words
    .filter((w) => !w.under)
    .map((w) => ({ w, forms: words.filter((f) => f.under === w.item && w.kind === 'text') }))
})
const opened = ref<string>()
/** The block that it is offered for: the one that it suits best. */
const blockOf = (w: Word) => review.document.blocks.find((b) => b.id === w.suits) ?? props.block

function rest(w?: Word) {
  const edits = w ? addEdits(blockOf(w), termOf(itemOf(w))) : []
  bench.rest(w && edits.length ? { edits, label: `+ ${w.item}`, block: blockOf(w).id } : undefined)
}

function take(w: Word) {
  bench.rest(undefined)
  add(blockOf(w), termOf(itemOf(w)), itemOf(w))
}
</script>

<template>
  <section
    v-if="others.length && spot.data.value"
    class="card"
    :aria-label="t('blind.title', { block: block.name })"
  >
    <h3 class="sect">{{ t('blind.title', { block: block.name }) }}<SampleMark /></h3>
    <OverNote v-if="!spot.data.value.over" :block="block" />
    <p v-else>
      {{
        t(
          'blind.text',
          {
            n: n(spot.data.value.records, 'whole'),
            others: others.map((b) => b.name).join(', '),
            block: block.name,
          },
          spot.data.value.records,
        )
      }}
    </p>
    <ul v-if="heads.length">
      <li v-for="{ w, forms } in heads" :key="w.kind + w.item">
        <WithTip
          v-slot="{ describedBy }"
          :text="
            t(
              'blind.tip',
              {
                n: n(w.records, 'whole'),
                of: n(w.of, 'whole'),
                suit: n(w.suit, 'two'),
                pull: n(w.pull, 'whole'),
              },
              w.records,
            )
          "
        >
          <button
            class="chip"
            :aria-label="t('coverage.addOne', { item: w.item, block: blockOf(w).name })"
            :aria-describedby="describedBy"
            @mouseenter="rest(w)"
            @mouseleave="rest()"
            @focus="rest(w)"
            @blur="rest()"
            @click="take(w)"
          >
            <BlockStamp v-if="w.suits" :block="w.suits" :size="14" /><b
              v-if="w.kind === 'heading'"
              class="heading"
              >{{ w.item }}</b
            ><span v-else class="mono">{{ w.item }}</span
            ><em>{{ n(w.records, 'whole') }}</em
            ><b aria-hidden="true">+</b>
          </button>
        </WithTip>
        <DropMenu :item="itemOf(w)" />
        <button
          v-if="forms.length"
          class="link small forms"
          :aria-expanded="opened === w.item"
          :aria-label="t('blind.formsOf', { n: forms.length, item: w.item }, forms.length)"
          @click="opened = opened === w.item ? undefined : w.item"
        >
          {{ t('blind.forms', { n: forms.length }, forms.length) }}
        </button>
        <ul v-if="opened === w.item" class="under">
          <li v-for="f in forms" :key="f.item">
            <button
              class="chip"
              :aria-label="t('coverage.addOne', { item: f.item, block: blockOf(f).name })"
              @mouseenter="rest(f)"
              @mouseleave="rest()"
              @focus="rest(f)"
              @blur="rest()"
              @click="take(f)"
            >
              <span class="mono">{{ f.item }}</span><em>{{ n(f.records, 'whole') }}</em
              ><b aria-hidden="true">+</b>
            </button>
          </li>
        </ul>
      </li>
    </ul>
    <p v-else-if="spot.data.value.over" class="small">{{ t('blind.nothing') }}</p>
  </section>
</template>

<style scoped>
.card {
  margin-top: 18px;
  padding: 10px 13px 12px;
}

p {
  margin: 3px 0 8px;
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 7px;
}

li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
}

.forms {
  margin-left: 4px;
  color: var(--ink-2);
}

.under {
  flex-basis: 100%;
  margin: 5px 0 0 14px;
}

.chip b:not(.heading) {
  color: var(--plum);
}
</style>
