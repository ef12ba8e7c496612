<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Block, type Edit } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useReader } from '@/parts/reader'
import { useBench } from '@/state/bench'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import OverNote from '@/parts/OverNote.vue'
import SampleMark from '@/parts/SampleMark.vue'
import { useSources } from '@/state/sources'
import PruneAtSource from './PruneAtSource.vue'
import PruneCurve from './PruneCurve.vue'
import { usePruneAtSource } from './pruneAtSource'

/** The terms of a block that can go, in their order, as a curve of records against terms; any point can be taken. */
const props = defineProps<{ block: Block }>()
const emit = defineEmits<{ close: [] }>()
const { t, n } = useI18n()
const review = useReview()
const bench = useBench()
const reader = useReader()
const problem = useProblem()
const sources = useSources()

const share = ref(0.95)
const shares = [1, 0.99, 0.95, 0.9, 0.8, 0.5]
const asked = useFigure(figures.pruning, () => ({ block: props.block.id, share: share.value }), {
  keep: true,
})
const now = computed(() => asked.data.value)
const steps = computed(() => now.value?.steps ?? [])

const there = usePruneAtSource(
  () => props.block,
  computed(() => steps.value.map((s) => s.id)),
)
/** What stands in the logbook of changes: a term that was switched off by the sample alone says so. */
const tried = computed(() => (there.losses.value.length ? 'prune' : 'pruneSample'))

const offTo = (last: number): Edit[] =>
  steps.value
    .slice(0, last + 1)
    .map((s) => ({ op: 'patchTerm', block: props.block.id, id: s.id, patch: { on: false } }))

const restedOn = ref<number>()
function rest(i?: number) {
  restedOn.value = i
  bench.rest(
    i === undefined
      ? undefined
      : { edits: offTo(i), label: t('prune.without', { n: i + 1 }, i + 1), block: props.block.id },
  )
}

function take(i: number) {
  rest()
  review.change(
    { key: tried.value, params: { block: props.block.name, n: String(i + 1) } },
    { edits: offTo(i) },
  )
}

function lost(i: number) {
  reader.list(
    {
      kind: 'lost',
      block: props.block.id,
      terms: steps.value.slice(0, i + 1).map((s) => s.id),
    },
    t('prune.lostTitle', { n: i + 1, block: props.block.name }, i + 1),
  )
}
</script>

<template>
  <section class="card" :aria-label="t('prune.title', { block: block.name })">
    <div class="row">
      <h3 class="sect">{{ t('prune.title', { block: block.name }) }}</h3>
      <span class="grow" />
      <label class="small" for="prune-share">{{ t('prune.keep') }}</label>
      <select id="prune-share" v-model.number="share" class="chip">
        <option v-for="s in shares" :key="s" :value="s">{{ n(s, 'share') }}</option>
      </select>
      <button class="btn bare" @click="emit('close')">{{ t('reader.close') }}</button>
    </div>
    <p v-if="asked.error.value && !now" class="wrong" role="alert">
      {{ problem(asked.error.value) }}
    </p>
    <OverNote v-else-if="now && !now.over" :block="block" />
    <p v-else-if="now && !steps.length" class="small">{{ t('prune.nothing') }}</p>
    <template v-else-if="now">
      <p>
        {{
          t(
            'prune.text',
            {
              n: steps.length,
              of: now.terms,
              left: n(steps.at(-1)!.left, 'whole'),
              records: n(now.records, 'whole'),
            },
            steps.length,
          )
        }}
        {{ now.keys ? t('prune.keys', { n: now.keys }, now.keys) : t('prune.noKeys') }}
      </p>
      <PruneAtSource :there="there" :block="block" :steps="steps.length" :over="now.over!" />
      <div class="two">
        <PruneCurve :pruning="now" :at="restedOn" />
        <table class="figures proposes">
          <thead>
            <tr>
              <th class="left">{{ t('prune.goes') }}</th>
              <th v-if="there.losses.value.length && sources.chosen">
                {{ t('prune.at', { source: sources.chosen.name }) }}
              </th>
              <template v-else>
                <th>{{ t('prune.loses') }}<SampleMark /></th>
                <th :title="t('prune.atMostTip')">{{ t('prune.atMost') }}</th>
              </template>
              <th>
                <span class="visually-hidden">{{ t('samples.acts') }}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(s, i) in steps" :key="s.id" @mouseenter="rest(i)" @mouseleave="rest()">
              <td class="left">
                <span class="small">{{ i + 1 }}</span> <span class="mono">{{ s.text }}</span>
              </td>
              <td v-if="there.losses.value.length && sources.chosen">
                {{ n(there.losses.value[i], 'whole') }}
              </td>
              <template v-else>
                <td>
                  <button
                    v-if="s.left < now.records"
                    class="link num"
                    :aria-label="t('prune.openLost', { n: i + 1 }, i + 1)"
                    @click="lost(i)"
                  >
                    {{ n(s.loses, 'whole') }}</button><template v-else>0</template>
                </td>
                <td>{{ n(s.atMost, 'share') }}</td>
              </template>
              <td class="acts">
                <button
                  class="btn bare"
                  :aria-label="t('prune.takeTo', { n: i + 1, term: s.text }, i + 1)"
                  @focus="rest(i)"
                  @blur="rest()"
                  @click="take(i)"
                >
                  {{ t('prune.take', { n: i + 1 }, i + 1) }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <v-progress-linear v-else indeterminate color="primary" :aria-label="t('harvest.counting')" />
  </section>
</template>

<style scoped>
.card {
  margin-top: 14px;
  padding: 10px 13px 12px;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
  gap: 18px;
  margin-top: 8px;
  align-items: start;
}

.acts {
  white-space: nowrap;
}

td.left {
  overflow-wrap: anywhere;
}

.wrong {
  color: var(--miss);
}

@container block (max-width: 700px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
