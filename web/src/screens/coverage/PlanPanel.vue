<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { figures, useFigure } from '@/figures'
import BlockStamp from '@/parts/BlockStamp.vue'
import DropMenu from '@/parts/DropMenu.vue'
import OverNote from '@/parts/OverNote.vue'
import WithTip from '@/parts/WithTip.vue'
import { useAsked } from '@/parts/asked'
import { useBench } from '@/state/bench'
import { itemOf, useDecide } from '@/state/decide'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import PlanCurve from './PlanCurve.vue'
import SampleMark from '@/parts/SampleMark.vue'

/** The rescue plan: the best bargain at each step, as a curve of key studies caught against records to read. */
const emit = defineEmits<{ study: [id: number] }>()
const { t, n } = useI18n()
const review = useReview()
const bench = useBench()
const problem = useProblem()
const { termOf, addEdits } = useDecide()

const plan = useFigure(figures.plan, () => null, {
  enabled: () => review.sample !== undefined,
  keep: true,
})
const now = computed(() => plan.data.value)
/** Blocks whose own words chose all records there are: prices over these say too little. */
const blind = computed(() => review.document.blocks.filter((b) => now.value?.blind?.includes(b.id)))
const steps = computed(() => now.value?.steps ?? [])
const left = computed(() => review.keyStudies.filter((k) => now.value?.left.includes(k.id)))

/** The edits that the steps up to one make. */
function opsTo(last: number) {
  return steps.value.slice(0, last + 1).flatMap((s) => {
    const block = review.document.blocks.find((b) => b.id === s.block)
    return block ? addEdits(block, termOf(itemOf(s))) : []
  })
}

/** What the source would find with the steps up to each, asked once somebody wants it. */
const sources = useSources()
const there = ref(false)
const inSight = 12
const keys = computed(() =>
  there.value && sources.chosen
    ? steps.value
        .slice(0, inSight)
        .map((_, i) => JSON.stringify([sources.chosen?.id, review.revision, i]))
    : [],
)
const asked = useAsked(keys, 1, async ([key]) => [
  await ask(
    api.POST('/api/reviews/{review}/count-whole', {
      params: review.asked,
      body: { revision: review.revision, edits: opsTo(JSON.parse(key)[2]) },
    }),
  ),
])

function rest(i?: number) {
  const s = i === undefined ? undefined : steps.value[i]
  bench.rest(
    s
      ? { edits: opsTo(i!), label: t('plan.steps', { n: i! + 1 }, i! + 1), block: s.block }
      : undefined,
  )
}

function take(i: number) {
  bench.rest(undefined)
  const edits = opsTo(i)
  if (edits.length) review.change({ key: 'plan', params: { n: String(i + 1) } }, { edits })
}
</script>

<template>
  <section class="panel" :aria-label="t('plan.title')">
    <h2 class="display">{{ t('plan.title') }}</h2>
    <p v-if="!review.sample" class="small">{{ t('plan.noSample') }}</p>
    <p v-else-if="plan.error.value && !now" class="wrong" role="alert">
      {{ problem(plan.error.value) }}
    </p>
    <v-progress-linear
      v-else-if="!now"
      indeterminate
      color="primary"
      :aria-label="t('harvest.counting')"
    />
    <p v-else-if="!steps.length" class="small">{{ t('plan.nothing') }}</p>
    <template v-else>
      <p class="small">
        {{
          t('plan.text', {
            caught: now.caught,
            of: now.of,
            hits: n(now.hits, 'whole'),
            then: steps.at(-1)!.caught,
            to: n(steps.at(-1)!.hits, 'whole'),
          })
        }}
      </p>
      <OverNote v-for="b in blind" :key="b.id" :block="b" />
      <PlanCurve :plan="now" />
      <table class="figures proposes">
        <thead>
          <tr>
            <th class="left">{{ t('coverage.candidate') }}</th>
            <th>
              <WithTip v-slot="{ describedBy }" :text="t('formula.price')"
                ><span tabindex="0" :aria-describedby="describedBy">{{
                  t('figure.price')
                }}</span></WithTip
              ><SampleMark />
            </th>
            <th>{{ t('plan.caught') }}</th>
            <th v-if="there && sources.chosen">
              {{ t('plan.there', { source: sources.chosen.name }) }}
            </th>
            <th>
              <span class="visually-hidden">{{ t('samples.acts') }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(s, i) in steps"
            :key="s.block + s.kind + s.item"
            @mouseenter="rest(i)"
            @mouseleave="rest()"
          >
            <td class="left">
              <BlockStamp :block="s.block" :size="15" />{{ ' ' }}
              <b v-if="s.kind === 'heading'">{{ s.item }}</b><span v-else class="mono">{{
                s.item
              }}</span>
              <em v-if="s.doubtful" class="small" :title="t('coverage.doubtfulTip')">{{
                t('coverage.doubtful')
              }}</em>
            </td>
            <td>+{{ n(s.price, 'whole') }}</td>
            <td>{{ s.caught }}</td>
            <td v-if="there && sources.chosen">
              {{ keys[i] && asked.of(keys[i]) ? n(asked.of(keys[i])!.records, 'whole') : '' }}
            </td>
            <td class="acts">
              <button
                class="btn bare"
                :aria-label="t('plan.takeTo', { n: i + 1, item: s.item }, i + 1)"
                @focus="rest(i)"
                @blur="rest()"
                @click="take(i)"
              >
                {{ i ? t('plan.takeShort', { n: i + 1 }) : t('act.add') }}</button><DropMenu
                :item="itemOf(s)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="sources.chosen" class="small row">
        <button v-if="!there" class="link under" @click="there = true">
          {{ t('plan.ask', { source: sources.chosen.name }) }}
        </button>
        <span v-else-if="asked.asking.value" aria-live="polite">{{
          t('headings.asking', { source: sources.chosen.name })
        }}</span>
        <span v-if="asked.problem.value" class="wrong" role="alert">{{ asked.problem.value }}</span>
      </p>
    </template>
    <template v-if="left.length">
      <h3 class="sect">{{ t('plan.left', { n: left.length }, left.length) }}</h3>
      <ul>
        <li v-for="k in left" :key="k.id">
          <button class="link cut" :title="k.title" @click="emit('study', k.id)">
            {{ k.title }}
          </button>
        </li>
      </ul>
    </template>
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
  font-weight: 600;
  margin-bottom: 4px;
}

.under {
  text-decoration: underline;
}

td.left {
  overflow-wrap: break-word;
  min-width: 96px;
}

td.left > :first-child {
  vertical-align: -2px;
}

h3 {
  margin: 14px 0 4px;
}

.cut {
  max-width: 100%;
  text-align: left;
}

.acts {
  white-space: nowrap;
}

.acts :deep(.btn) {
  padding-inline: 4px;
}

.wrong {
  color: var(--miss);
}
</style>
