<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type RescueCandidate } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import DropMenu from '@/parts/DropMenu.vue'
import MarkedText from '@/parts/MarkedText.vue'
import WithTip from '@/parts/WithTip.vue'
import { useReader } from '@/parts/reader'
import { useBench } from '@/state/bench'
import { useDecide } from '@/state/decide'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import NearMisses from './NearMisses.vue'

/** One key study: its words marked by block, what holds it back, and what would bring it back at which price. */
const props = defineProps<{
  study: number
  heldBackBy: string[]
  caught: boolean
  half?: string
  away?: boolean
}>()

const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const bench = useBench()
const reader = useReader()
const { termOf, add, addEdits } = useDecide()

const rescue = useQuery({
  queryKey: computed(() => [
    'rescue',
    review.id,
    review.revision,
    review.dropStamp,
    review.lookStamp,
    review.keysStamp,
    props.study,
  ]),
  queryFn: () =>
    ask(
      api.GET('/api/reviews/{review}/coverage/{study}', {
        params: { path: { review: review.id, study: props.study }, query: review.asked.query },
      }),
    ),
  placeholderData: keepPreviousData,
})
const record = computed(() => rescue.data.value?.record)
const blocks = computed(() =>
  (rescue.data.value?.blocks ?? []).flatMap((b) => {
    const block = review.document.blocks.find((x) => x.id === b.block)
    return block ? [{ ...b, ...parted(b.candidates), block }] : []
  }),
)
const limits = computed(() =>
  props.heldBackBy.filter((h) => h.startsWith('limit:')).map((h) => h.slice(6)),
)
const shownOf = ref(new Set<string>())
const step = 12

function itemOf(c: RescueCandidate) {
  return {
    facet: c.kind === 'heading' ? ('headings' as const) : ('words' as const),
    item: c.item,
    key: c.item,
  }
}

function rest(block: (typeof review.document.blocks)[number], c?: RescueCandidate) {
  const edits = c ? addEdits(block, termOf(itemOf(c))) : []
  bench.rest(c && edits.length ? { edits, label: `+ ${c.item}`, block: block.id } : undefined)
}

function take(block: (typeof review.document.blocks)[number], c: RescueCandidate) {
  bench.rest(undefined)
  add(block, termOf(itemOf(c)), itemOf(c))
}

const byline = computed(() =>
  [
    record.value?.authors.slice(0, 4).join('; '),
    record.value?.journal,
    record.value?.year || undefined,
    record.value && !record.value.indexed ? t('record.unindexed') : undefined,
  ]
    .filter(Boolean)
    .join(' · '),
)
/** What belongs to the block, what suits another better, and what is too rare to tell. */
function parted(candidates: RescueCandidate[]) {
  const own = candidates.filter((c) => c.suit === undefined || (c.suit > 0 && !c.suits))
  return {
    own,
    elsewhere: candidates.filter((c) => c.suits),
    rare: candidates.filter((c) => c.rare),
    none: candidates.filter((c) => c.suit === 0 && !c.suits && !c.rare),
  }
}
const blockOf = (c: RescueCandidate, block: (typeof review.document.blocks)[number]) =>
  review.document.blocks.find((b) => b.id === c.suits) ?? block
const list = (b: string) => (shownOf.value.has(b) ? Infinity : step)
const more = (b: string) => (shownOf.value = new Set([...shownOf.value, b]))
</script>

<template>
  <section v-if="record" class="panel" :aria-label="t('coverage.study')">
    <h2 class="display">
      <button :title="t('panel.openRecord')" @click="reader.one(record.id, t('keys.one'))">
        <MarkedText :pieces="record.title" />
      </button>
    </h2>
    <p class="small">{{ byline }}</p>
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
    <template v-for="b in blocks.filter((x) => x.missed)" :key="`r${b.block.id}`">
      <NearMisses v-if="b.near.length" :block="b.block" :near="b.near" />
      <h3 class="sect">{{ t('coverage.bringBack', { block: b.block.name }) }}</h3>
      <table v-if="b.own.length" class="figures proposes">
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
          <tr
            v-for="c in b.own.slice(0, list(b.block.id))"
            :key="c.kind + c.item"
            @mouseenter="rest(b.block, c)"
            @mouseleave="rest(b.block)"
          >
            <td class="left">
              <b v-if="c.kind === 'heading'">{{ c.item }}</b><span v-else class="mono">{{
                c.item
              }}</span>
              <em v-if="c.doubtful" class="small" :title="t('coverage.doubtfulTip')">{{
                t('coverage.doubtful')
              }}</em>
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
              {{
                c.worth === undefined ? '' : n(c.worth * 1000, c.worth < 0.00995 ? 'one' : 'whole')
              }}
            </td>
            <td class="acts">
              <button
                class="btn bare"
                :aria-label="t('coverage.addOne', { item: c.item, block: b.block.name })"
                @focus="rest(b.block, c)"
                @blur="rest(b.block)"
                @click="take(b.block, c)"
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
              : b.candidates.length
                ? 'coverage.noneSuits'
                : 'coverage.noCandidates',
            { block: b.block.name },
          )
        }}
      </p>
      <button v-if="b.own.length > list(b.block.id)" class="btn bare" @click="more(b.block.id)">
        {{ t('coverage.more', { n: b.own.length - step }) }}
      </button>
      <details
        v-for="(those, kind) in { elsewhere: b.elsewhere, rare: b.rare, none: b.none }"
        v-show="those.length"
        :key="kind"
      >
        <summary class="small">
          {{
            t(
              `coverage.${kind}`,
              { n: n(those.length, 'whole'), block: b.block.name },
              those.length,
            )
          }}
        </summary>
        <ul class="others">
          <li v-for="c in those" :key="c.kind + c.item">
            <button
              class="chip"
              :aria-label="t('coverage.addOne', { item: c.item, block: blockOf(c, b.block).name })"
              @focus="rest(blockOf(c, b.block), c)"
              @blur="rest(b.block)"
              @mouseenter="rest(blockOf(c, b.block), c)"
              @mouseleave="rest(b.block)"
              @click="take(blockOf(c, b.block), c)"
            >
              <BlockStamp v-if="c.suits" :block="c.suits" :size="14" /><b
                v-if="c.kind === 'heading'"
                >{{ c.item }}</b
              ><span v-else class="mono">{{ c.item }}</span>
            </button>
          </li>
        </ul>
      </details>
    </template>
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
