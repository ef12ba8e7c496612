<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Run } from '@/api/client'
import SourceNotes from '@/parts/SourceNotes.vue'
import { useReader } from '@/parts/reader'
import { useReview } from '@/state/review'
import { useVersionName, useVersions } from './versions'

/** One run of the logbook. One that was written down by hand can be put right: it stays, and says that it counts no more. */
const props = defineProps<{ run: Run }>()
const emit = defineEmits<{ correct: [] }>()
const { t, n, d } = useI18n()
const review = useReview()
const reader = useReader()
const named = useVersionName()
const versions = useVersions()

/** The version whose search it was: a later change that searches the same is no other. */
const version = computed(() =>
  versions.data.value?.find(
    (v) => v.id > 0 && (v.revision === props.run.revision || v.same?.includes(props.run.revision)),
  ),
)
const sample = computed(() => review.samples.find((s) => s.id === props.run.sample))
const kind = computed(() => {
  if (props.run.kind === 'asked') return ''
  return t(props.run.way ? `runs.way.${props.run.way}` : `runs.kind.${props.run.kind}`)
})
/** Whether it counts no more. */
const past = computed(() => props.run.correctedBy !== undefined || props.run.void === true)
const correctable = computed(() => props.run.kind === 'hand' && !past.value)
</script>

<template>
  <tr :class="{ past }">
    <td class="left when">
      <span class="day">{{ d(run.at, 'day') }}</span>
      <span class="small">{{ d(run.at, 'time') }}</span>
      <span v-if="run.who" class="small">{{ run.who }}</span>
    </td>
    <td class="left place">
      <b>{{ run.place }}</b>
      <span v-if="kind" class="small">{{ kind }}</span>
      <span v-if="run.void" class="small wrong">{{ t('runs.void') }}</span>
      <span v-else-if="past" class="small">{{ t('runs.corrected') }}</span>
      <span v-else-if="run.corrects" class="small">{{ t('runs.corrects') }}</span>
    </td>
    <td>
      <template v-if="run.records !== undefined">{{ n(run.records, 'whole') }}</template><span
        v-else-if="run.problem"
        class="wrong small"
        >{{ run.problem.title }}</span
      ><span v-else-if="!run.void" class="small">{{ t('runs.unknown') }}</span>
      <button
        v-if="sample && !past"
        class="link small file"
        @click="reader.list({ kind: 'sample', sample: sample.id }, sample.name)"
      >
        {{ t('runs.fileOf', { n: n(sample.records, 'whole') }) }}
      </button>
    </td>
    <td class="left small">
      {{ version ? named(version) : t('runs.revision', { n: n(run.revision, 'whole') }) }}
    </td>
    <td class="left query">
      <details v-if="run.query || run.notes.length || run.note">
        <summary class="small">
          <span class="mono">{{ run.query.slice(0, 60) || run.note }}</span>
        </summary>
        <pre class="mono">{{ run.query }}</pre>
        <p v-if="run.note" class="small">{{ run.note }}</p>
        <p v-if="run.echoed && run.echoed !== run.query" class="small">
          {{ t('runs.echoed') }} <span class="mono">{{ run.echoed }}</span>
        </p>
        <SourceNotes :notes="run.notes" />
      </details>
      <button
        v-if="correctable"
        class="link small"
        :aria-label="t('runs.correctOf', { place: run.place })"
        @click="emit('correct')"
      >
        {{ t('runs.correct') }}
      </button>
    </td>
  </tr>
</template>

<style scoped>
td {
  vertical-align: top;
}

.when span,
.place .small,
.file {
  display: block;
}

.file {
  margin-left: auto;
}

.day {
  white-space: nowrap;
}

.place {
  overflow-wrap: anywhere;
  min-width: 120px;
}

.query {
  width: 40%;
  max-width: 0; /* so that a long query is cut where its column ends */
}

.past b,
.past .day,
.past summary {
  text-decoration: line-through;
}

.past {
  color: var(--ink-soft);
}

summary {
  cursor: pointer;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

pre {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font-size: 12.5px;
  max-height: 180px;
  overflow: auto;
  margin: 6px 0;
}

.wrong {
  color: var(--miss);
}
</style>
