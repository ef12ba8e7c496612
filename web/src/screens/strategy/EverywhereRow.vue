<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type SourceRun } from '@/api/client'
import { figures } from '@/figures'
import SourceNotes from '@/parts/SourceNotes.vue'
import { useNotes } from '@/state/notes'
import { useCopying } from '@/parts/copying'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import { useInterval } from './interval'

/** One source: what it answered and when, what only it brings, which key studies it holds, and how it is asked. */
const props = defineProps<{ row: SourceRun; keys: number; on: boolean }>()
const emit = defineEmits<{ choose: [on: boolean] }>()
const { t, n, d } = useI18n()
const review = useReview()
const sources = useSources()
const notes = useNotes()
const problem = useProblem()
const copying = useCopying()
const interval = useInterval()

const refused = computed(() => props.row.run?.problem)
const fetched = computed(() => props.row.fetch === 'done' || props.row.fetch === 'stopped')
const copy = () => copying(props.row.query, t('strategy.copiedWhole'))
async function keep() {
  try {
    await ask(
      api.POST('/api/reviews/{review}/runs/{run}/sample', {
        params: { path: { review: review.id, run: props.row.run!.id } },
      }),
    )
    notes.say({ text: t('everywhere.kept', { name: props.row.name }) })
    sources.fresh(figures.everywhere, figures.draws)
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
}
</script>

<template>
  <tr :class="{ off: row.off }">
    <td class="left">
      <label class="row"
        ><input
          type="checkbox"
          :checked="on && !row.off && !!row.query"
          :disabled="row.off || !row.query"
          :aria-label="t('everywhere.at', { name: row.name })"
          @change="emit('choose', ($event.target as HTMLInputElement).checked)"
        /><b>{{ row.name }}</b></label
      >
      <span v-if="row.off" class="small">{{ t('everywhere.off') }}</span>
    </td>
    <td>
      <template v-if="row.run?.records !== undefined">
        <span :class="{ old: row.stale }">{{ n(row.run.records, 'whole') }}</span>
        <span class="small day"
          >{{ d(row.run.at, 'short') }}, {{ d(row.run.at, 'time') }}</span
        ></template
      >
      <span v-else-if="refused" class="wrong">{{ refused.title }}</span>
      <span v-else class="small">{{
        row.waiting ? t('everywhere.waiting') : t('everywhere.never')
      }}</span>
    </td>
    <td>
      <template v-if="row.only">{{ interval(row.only) }}</template>
    </td>
    <td v-if="keys">
      <template v-if="row.held || !row.open">{{
        t('everywhere.held', { caught: row.caught, held: row.held })
      }}</template><template v-else>{{ t('everywhere.noneHeld') }}</template
      ><template v-if="row.open"
        >{{ ', '
        }}<router-link :to="{ name: 'question', params: { review: review.id } }">{{
          t('everywhere.undecided', { n: row.open }, row.open)
        }}</router-link></template
      >
    </td>
    <td>
      <template v-if="row.fetch"
        >{{ n(row.fetched, 'whole') }}
        <span v-if="row.fetch === 'failed' || row.fetch === 'stopped'" class="small wrong day">{{
          row.trouble || t('everywhere.unfinished')
        }}</span>
        <button v-if="fetched && row.fetched" class="link small day" @click="keep">
          {{ t('everywhere.keep') }}
        </button></template
      >
    </td>
    <td class="left">
      <span v-if="!row.query" class="small">{{ t('everywhere.cannot') }}</span>
      <details v-else>
        <summary class="small">
          {{ t('everywhere.query') }}<template v-if="row.notes.length">, </template
          ><span v-if="row.notes.length" class="gold">{{
            t('everywhere.notes', { n: row.notes.length }, row.notes.length)
          }}</span>
        </summary>
        <pre class="mono">{{ row.query }}</pre>
        <button class="btn bare" @click="copy">{{ t('strategy.copyWhole') }}</button>
        <SourceNotes :notes="row.notes" />
      </details>
    </td>
  </tr>
</template>

<style scoped>
td {
  vertical-align: top;
}

.day {
  display: block;
}

button.day {
  margin-left: auto;
}

.old {
  color: var(--ink-2);
  text-decoration: line-through;
  text-decoration-thickness: 1px;
}

.off td {
  color: var(--ink-2);
}

.gold {
  color: var(--gold-deep);
}

.wrong {
  color: var(--miss);
}

summary {
  cursor: pointer;
}

pre {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font-size: 12.5px;
  max-height: 180px;
  overflow: auto;
  margin: 6px 0;
}
</style>
