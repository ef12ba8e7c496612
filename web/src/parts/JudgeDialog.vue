<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Judging, type Verdict } from '@/api/client'
import { figures, keyOf, useFigure, useFresh } from '@/figures'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import JudgeMarks from './JudgeMarks.vue'
import JudgedShare from './JudgedShare.vue'
import RecordText from './RecordText.vue'
import { useJudging } from './judging'
import { useMakeKeys } from './makeKeys'
import { useRead } from './read'

/** A few records of a set, drawn at random, judged with one key each; what they come to grows as it is done. */
const { t, n } = useI18n()
const review = useReview()
const judging = useJudging()
const notes = useNotes()
const problem = useProblem()
const client = useQueryClient()
const fresh = useFresh()
const few = 20
const most = 500

const wanted = ref(few)
const at = ref(0)
const question = computed(() => ({ of: judging.set ?? { kind: 'all' as const }, n: wanted.value }))
const key = computed(() => keyOf(figures.judging, review, question.value))
const drawn = useFigure(figures.judging, () => question.value, {
  enabled: () => judging.open && judging.set !== undefined,
  keep: true,
})
const records = computed(() => drawn.data.value?.records ?? [])
const here = computed(() => records.value[at.value])
const open = computed(() => records.value.filter((r) => !r.verdict).length)
const relevant = computed(() => records.value.filter((r) => r.verdict === 'relevant' && !r.key))

watch(
  () => [judging.open, judging.set],
  () => {
    wanted.value = few
    at.value = 0
    begun = false
  },
)
// It begins with the first that nobody has judged.
let begun = false
watch(records, (all) => {
  if (begun || !all.length || drawn.isPlaceholderData.value) return
  begun = true
  at.value = Math.max(
    0,
    all.findIndex((r) => !r.verdict),
  )
})

const read = useRead(
  () => here.value?.id,
  undefined,
  () => judging.open,
)

function go(by: number) {
  at.value = Math.min(Math.max(at.value + by, 0), Math.max(records.value.length - 1, 0))
}

/** Says what a record is, and goes on to the next that nobody has judged. */
async function say(verdict: Verdict) {
  const record = here.value
  if (!record) return
  const now = key.value
  const back = client.getQueryData<Judging>(now)
  client.setQueryData<Judging>(now, (old) => old && judgedAs(old, record.id, verdict))
  if (verdict !== 'open') {
    const next = records.value.findIndex((r, i) => i > at.value && !r.verdict)
    if (next >= 0) at.value = next
  }
  try {
    await ask(
      api.PUT('/api/reviews/{review}/judgements/{record}', {
        params: { path: { review: review.id, record: record.id } },
        body: { verdict },
      }),
    )
  } catch (error) {
    client.setQueryData(now, back)
    notes.say({ text: problem(error), wrong: true })
  }
  fresh(figures.judging)
}

function judgedAs(old: Judging, id: number, verdict: Verdict): Judging {
  return {
    ...old,
    records: old.records.map((r) =>
      r.id === id ? { ...r, verdict: verdict === 'open' ? undefined : verdict } : r,
    ),
  }
}

const { taking, take } = useMakeKeys(relevant)

const verdicts = [
  { key: '1', verdict: 'relevant' },
  { key: '2', verdict: 'not' },
  { key: '3', verdict: 'unsure' },
] as const
useEventListener('keydown', (e: KeyboardEvent) => {
  if (!judging.open || e.defaultPrevented || e.ctrlKey || e.metaKey || e.altKey) return
  if ((e.target as HTMLElement).matches('input, textarea, select')) return
  const said = verdicts.find((v) => v.key === e.key)
  const by = { ArrowRight: 1, ArrowLeft: -1 }[e.key]
  if (said) void say(said.verdict)
  else if (e.key.toLowerCase() === 'z') void say('open')
  else if (by) go(by)
  else return
  e.preventDefault()
})
</script>

<template>
  <v-dialog v-model="judging.open" max-width="860" :aria-label="t('judge.title')">
    <v-card class="judge">
      <div class="head">
        <h2 class="display cut">{{ t('judge.of', { what: judging.title }) }}</h2>
        <span v-if="records.length" class="small">{{
          t('judge.place', { at: at + 1, of: records.length })
        }}</span>
        <span class="grow" />
        <button class="btn outline" :disabled="at === 0" @click="go(-1)">
          {{ t('reader.previous') }} <kbd>←</kbd>
        </button>
        <button class="btn outline" :disabled="at >= records.length - 1" @click="go(1)">
          {{ t('reader.next') }} <kbd>→</kbd>
        </button>
        <button class="btn bare" @click="judging.open = false">{{ t('reader.close') }}</button>
      </div>
      <p v-if="drawn.error.value && !drawn.data.value" class="wrong said" role="alert">
        {{ problem(drawn.error.value) }}
      </p>
      <p v-else-if="drawn.data.value && !records.length" class="small said">
        {{ t('reader.none') }}
      </p>
      <template v-else-if="drawn.data.value">
        <JudgedShare :judging="drawn.data.value" />
        <JudgeMarks v-model="at" :records="records" />
        <div class="text"><RecordText v-if="read.data.value" :record="read.data.value" /></div>
        <div class="foot" role="group" :aria-label="t('judge.verdict')">
          <button
            v-for="v in verdicts"
            :key="v.verdict"
            class="btn outline"
            :class="{ said: here?.verdict === v.verdict }"
            :aria-pressed="here?.verdict === v.verdict"
            @click="say(v.verdict)"
          >
            {{ t(`judge.${v.verdict}`) }} <kbd>{{ v.key }}</kbd>
          </button>
          <button v-if="here?.verdict && !here.key" class="btn bare" @click="say('open')">
            {{ t('judge.back') }} <kbd>Z</kbd>
          </button>
          <span v-if="here?.key" class="small">{{ t('judge.isKey') }}</span>
          <span class="grow" />
          <button
            v-if="!open && records.length < Math.min(drawn.data.value.total, most)"
            class="btn bare"
            @click="wanted = Math.min(wanted + few, most)"
          >
            {{ t('judge.more', { n: Math.min(few, drawn.data.value.total - records.length) }) }}
          </button>
          <button v-if="relevant.length" class="btn outline" :disabled="taking" @click="take">
            {{ t('judge.makeKeys', { n: n(relevant.length, 'whole') }, relevant.length) }}
          </button>
        </div>
      </template>
      <v-progress-linear v-else indeterminate color="primary" :aria-label="t('harvest.counting')" />
    </v-card>
  </v-dialog>
</template>

<style scoped>
.judge {
  height: min(680px, 88vh);
  display: flex;
  flex-direction: column;
}

.head,
.foot {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 10px;
  padding: 10px 16px;
}

.head {
  border-bottom: 1px solid var(--line);
}

.foot {
  border-top: 1px solid var(--line);
}

h2 {
  font-size: 16px;
  font-weight: 600;
}

.text {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  display: flex;
}

.btn.said {
  background: var(--gold-soft);
}

p.said {
  padding: 16px;
}

.wrong {
  color: var(--miss);
}
</style>
