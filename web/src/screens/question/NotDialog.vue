<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Block, type Edit, type RecordSet } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useJudging } from '@/parts/judging'
import { useReader } from '@/parts/reader'
import { useBench } from '@/state/bench'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'

/** What a concept would take away if it were kept out by NOT: seen before it is done. */
const props = defineProps<{ block: Block }>()
const open = defineModel<boolean>({ required: true })
const { t, n } = useI18n()
const review = useReview()
const bench = useBench()
const reader = useReader()
const judging = useJudging()
const problem = useProblem()

// What it drops is what the rest of the strategy finds and it does, too: asked of the strategy without it.
const edits = (negated: boolean): Edit[] => [
  { op: 'patchBlock', id: props.block.id, patch: { negated, searched: negated } },
]
const proposed = (list: Edit[]) => ({
  revision: review.revision,
  edits: [...review.queue.flatMap((w) => w.edits), ...list],
})
const off = useFigure(figures.bench, () => proposed(edits(false)), { enabled: () => open.value })
const on = useFigure(figures.bench, () => proposed(edits(true)), { enabled: () => open.value })
const failed = computed(() => off.error.value ?? on.error.value)
const price = computed(() => {
  const f = off.data.value && on.data.value && { off: off.data.value, on: on.data.value }
  if (!f) return undefined
  const lost = review.keyStudies.filter((_, i) => f.off.caught[i] && !f.on.caught[i])
  return {
    records:
      f.off.records === undefined || f.on.records === undefined
        ? undefined
        : f.off.records - f.on.records,
    of: f.off.records,
    lost,
  }
})
const dropped = computed<RecordSet>(() => ({
  kind: 'within',
  of: { kind: 'block', block: props.block.id },
  in: { kind: 'strategy' },
}))
/** What it drops can only be opened while it drops nothing yet. */
const opens = computed(
  () => !(props.block.searched && props.block.negated) && !props.block.searched,
)

const handful = useFigure(figures.judging, () => ({ of: dropped.value, n: 5 }), {
  enabled: () => open.value && opens.value && !!price.value?.records,
})
const heads = useFigure(
  figures.records,
  () => ({
    of: { kind: 'picked' as const, ids: handful.data.value?.records.map((r) => r.id) ?? [] },
    at: 0,
    limit: 5,
  }),
  { enabled: () => open.value && !!handful.data.value?.records.length },
)

function set(negated: boolean) {
  open.value = false
  bench.rest(undefined)
  review.change(
    { key: negated ? 'negated' : 'keptOut', params: { block: props.block.name } },
    { edits: edits(negated) },
  )
}
</script>

<template>
  <v-dialog v-model="open" max-width="640" :aria-label="t('not.title', { block: block.name })">
    <v-card class="box">
      <h2 class="display">{{ t('not.title', { block: block.name }) }}</h2>
      <p class="small">{{ t('not.text', { concept: block.concept || t('block.unnamed') }) }}</p>
      <p v-if="failed" class="wrong" role="alert">
        {{ problem(failed) }}
      </p>
      <template v-else-if="price">
        <div class="row figures-row">
          <div v-if="price.records !== undefined">
            <span class="display big">{{ n(price.records, 'whole') }}</span>{{ ' ' }}
            <span class="small">{{ t('not.records', { of: n(price.of ?? 0, 'whole') }) }}</span>
          </div>
          <div>
            <span class="display big" :class="{ wrong: price.lost.length }">{{
              price.lost.length
            }}</span>{{ ' ' }}
            <span class="small">{{
              t('not.keys', { n: price.lost.length }, price.lost.length)
            }}</span>
          </div>
        </div>
        <ul v-if="price.lost.length" class="lost">
          <li v-for="k in price.lost" :key="k.id" class="cut">{{ k.title }}</li>
        </ul>
        <template v-if="heads.data.value?.records.length">
          <h3 class="sect">{{ t('not.handful') }}</h3>
          <ul>
            <li v-for="r in heads.data.value.records" :key="r.id">
              <button class="link" @click="reader.one(r.id, t('not.dropped'))">
                {{ r.title }}
              </button>
            </li>
          </ul>
          <div class="row">
            <button class="btn bare" @click="reader.list(dropped, t('not.dropped'))">
              {{ t('not.openAll') }}
            </button>
            <button class="btn bare" @click="judging.judge(dropped, t('not.dropped'))">
              {{ t('judge.few') }}
            </button>
          </div>
        </template>
        <p v-else-if="!price.records" class="small">{{ t('not.nothing') }}</p>
        <div class="row acts">
          <span class="grow" />
          <button class="btn outline" @click="open = false">{{ t('not.leave') }}</button>
          <button v-if="block.negated && block.searched" class="btn" @click="set(false)">
            {{ t('not.back') }}
          </button>
          <button v-else class="btn" :class="{ danger: price.lost.length }" @click="set(true)">
            {{ t('not.do', { block: block.name }) }}
          </button>
        </div>
      </template>
      <v-progress-linear v-else indeterminate color="primary" :aria-label="t('harvest.counting')" />
    </v-card>
  </v-dialog>
</template>

<style scoped>
.box {
  padding: 16px 18px;
}

h2 {
  font-size: 17px;
  font-weight: 600;
  margin-bottom: 4px;
}

h3 {
  margin: 12px 0 4px;
}

.figures-row {
  gap: 30px;
  margin-top: 10px;
}

.big {
  font-size: 26px;
  font-weight: 600;
  margin-right: 6px;
}

.lost {
  margin-top: 4px;
}

.lost li {
  max-width: 100%;
  color: var(--miss);
}

li {
  padding: 2px 0;
}

li .link {
  text-align: left;
}

.acts {
  margin-top: 14px;
  gap: 8px;
}

.wrong {
  color: var(--miss);
}
</style>
