<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Block } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import DropMenu from '@/parts/DropMenu.vue'
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
const spot = useQuery({
  queryKey: computed(() => [
    'blindspot',
    review.id,
    review.revision,
    review.dropStamp,
    review.lookStamp,
    props.block.id,
  ]),
  queryFn: () =>
    ask(
      api.GET('/api/reviews/{review}/blocks/{block}/blind-spot', {
        params: { path: { review: review.id, block: props.block.id }, query: review.asked.query },
      }),
    ),
  enabled: () => review.sample !== undefined && others.value.length > 0,
  placeholderData: keepPreviousData,
})
type Word = NonNullable<typeof spot.data.value>['words'][number]
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
    <h3 class="sect">{{ t('blind.title', { block: block.name }) }}</h3>
    <p>
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
    <ul v-if="spot.data.value.words.length">
      <li v-for="w in spot.data.value.words" :key="w.kind + w.item">
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
      </li>
    </ul>
    <p v-else class="small">{{ t('blind.nothing') }}</p>
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
}

.chip b:not(.heading) {
  color: var(--plum);
}
</style>
