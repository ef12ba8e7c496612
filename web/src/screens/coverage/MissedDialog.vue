<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { type RecordSet } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useLooked } from '@/state/looked'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useWayPairs } from './wayPairs'

/** How many relevant records there may be that nobody knows, from what two ways found. */
const open = defineModel<boolean>({ required: true })
const { t, n } = useI18n()
const review = useReview()
const looked = useLooked()
const problem = useProblem()

const ways = computed<RecordSet[]>(() => [
  ...review.samples.map((s): RecordSet => ({ kind: 'sample', sample: s.id })),
  ...looked.offered,
  { kind: 'shelf' },
])
const pairs = useWayPairs(ways)
const chosen = ref<[number, number]>([0, 1])
watch(open, () => (chosen.value = pairs.first()))
/** What can be the second way beside the first: those that were made by other means come first. */
const seconds = computed(() => pairs.beside(chosen.value[0]))
watch(seconds, (others) => {
  if (others.length && !others.includes(chosen.value[1])) chosen.value[1] = others[0]
})
const two = computed(() => chosen.value.map((i) => ways.value[i]))
const asked = useFigure(figures.estimate, () => ({ first: two.value[0], second: two.value[1] }), {
  enabled: () => open.value && chosen.value[0] !== chosen.value[1],
  stays: 0,
})
const e = computed(() => asked.data.value)
const sides = computed(() => (e.value ? [e.value.first, e.value.second] : []))
const choose = (side: number, i: number) => (chosen.value[side] = i)
</script>

<template>
  <v-dialog v-model="open" max-width="680" :aria-label="t('missed.title')">
    <v-card class="box">
      <div class="row">
        <h2 class="display">{{ t('missed.title') }}</h2>
        <span class="grow" />
        <button class="btn bare" @click="open = false">{{ t('reader.close') }}</button>
      </div>
      <p class="small">{{ t('missed.text') }}</p>
      <div class="ways">
        <label v-for="(i, side) in chosen" :key="side" class="small"
          >{{ t(side ? 'missed.second' : 'missed.first') }}
          <select
            class="chip"
            :value="i"
            @change="choose(side, Number(($event.target as HTMLSelectElement).value))"
          >
            <option v-for="k in side ? seconds : ways.keys()" :key="k" :value="k">
              {{ looked.name(ways[k]) }}
            </option>
          </select></label
        >
      </div>
      <p v-if="chosen[0] === chosen[1]" class="small">{{ t('missed.same') }}</p>
      <p v-else-if="asked.error.value" class="wrong" role="alert">
        {{ problem(asked.error.value) }}
      </p>
      <template v-else-if="e">
        <table class="figures">
          <thead>
            <tr>
              <th class="left">{{ t('missed.way') }}</th>
              <th>{{ t('figure.records') }}</th>
              <th>{{ t('missed.relevant') }}</th>
              <th>{{ t('missed.only') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(s, i) in sides" :key="i">
              <td class="left">{{ looked.name(two[i]) }}</td>
              <td>{{ n(s.records, 'whole') }}</td>
              <td>{{ s.relevant }}</td>
              <td>{{ s.only.length }}</td>
            </tr>
            <tr>
              <td class="left">{{ t('missed.both') }}</td>
              <td />
              <td>{{ e.both }}</td>
              <td />
            </tr>
          </tbody>
        </table>
        <p v-if="!e.both" class="said">{{ t('missed.none') }}</p>
        <p v-else-if="!e.total" class="said">{{ t('missed.inside') }}</p>
        <p v-else class="said">
          <span class="display big">{{ n(e.total.value, 'whole') }}</span>
          {{
            t(e.total.high === undefined ? 'missed.totalOpen' : 'missed.total', {
              low: n(e.total.low, 'whole'),
              high: n(e.total.high ?? 0, 'whole'),
              known: e.first.relevant + e.second.only.length,
            })
          }}
        </p>
        <p v-if="e.few && e.total" class="small warning">
          {{ t('missed.few', { n: e.both }, e.both) }}
        </p>
        <p class="small warning">{{ t('missed.warning') }}</p>
        <template v-for="(s, i) in sides" :key="i">
          <details v-if="s.only.length">
            <summary class="small">
              {{
                t('missed.onlyIn', { n: s.only.length, way: looked.name(two[i]) }, s.only.length)
              }}
            </summary>
            <ul>
              <li v-for="title in s.only" :key="title" class="small">{{ title }}</li>
            </ul>
          </details>
        </template>
        <p v-if="e.neither" class="small">
          {{ t('missed.neither', { n: e.neither }, e.neither) }}
        </p>
      </template>
      <v-progress-linear v-else indeterminate color="primary" :aria-label="t('harvest.counting')" />
    </v-card>
  </v-dialog>
</template>

<style scoped>
.box {
  padding: 14px 18px 18px;
}

h2 {
  font-size: 17px;
  font-weight: 600;
}

.ways {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  margin: 10px 0;
}

.ways select {
  display: block;
  width: 100%;
  font: 12.5px var(--ui);
  color: var(--ink);
}

.said {
  margin: 12px 0 4px;
}

.big {
  font-size: 26px;
  font-weight: 600;
  margin-right: 4px;
}

.warning {
  padding: 6px 10px;
  border-left: 3px solid var(--gold);
  background: var(--gold-soft);
  margin-bottom: 8px;
}

.wrong {
  color: var(--miss);
}
</style>
