<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { type FoundWork, type Verdict } from '@/api/client'
import RecordText from '@/parts/RecordText.vue'
import { useRead } from '@/parts/read'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'

/** One work to be read and judged with one key. */
const props = defineProps<{ work: FoundWork }>()
const emit = defineEmits<{ say: [verdict: 'key' | Verdict]; shelve: [] }>()
const { t } = useI18n()
const review = useReview()
const problem = useProblem()

const read = useRead(() => props.work.record.id)
const study = computed(() => review.keyStudies.find((k) => props.work.records.includes(k.record)))
const ties = computed(() => {
  const w = props.work
  const out = [t('found.brought', { rounds: w.rounds.join(', ') }, w.rounds.length)]
  if (w.leads) out.push(t('found.leadsText', { n: w.leads }, w.leads))
  if (w.shared) out.push(t('found.sharedText', { n: w.shared }, w.shared))
  if (w.together) out.push(t('found.togetherText', { n: w.together }, w.together))
  return out.join(' ')
})
const verdicts = [
  { verdict: 'key', key: '1' },
  { verdict: 'not', key: '2' },
  { verdict: 'unsure', key: '3' },
] as const
</script>

<template>
  <aside :aria-label="t('found.one')">
    <div class="row acts" role="group" :aria-label="t('judge.verdict')">
      <template v-if="work.verdict !== 'key'">
        <button
          v-for="v in verdicts"
          :key="v.verdict"
          class="btn"
          :class="{ outline: v.verdict !== 'key' }"
          :aria-pressed="work.verdict === v.verdict"
          @click="emit('say', v.verdict)"
        >
          {{ t(`found.say.${v.verdict}`) }} <kbd>{{ v.key }}</kbd>
        </button>
        <button v-if="work.verdict" class="btn bare" @click="emit('say', 'open')">
          {{ t('judge.back') }} <kbd>Z</kbd>
        </button>
      </template>
      <b v-else class="small">{{ t('found.verdict.key') }}</b>
      <button class="btn bare" :aria-pressed="!!work.shelved" @click="emit('shelve')">
        {{ t(work.shelved ? 'shelf.off' : 'found.say.shelf') }} <kbd>K</kbd>
      </button>
      <router-link
        v-if="study && !work.caught"
        class="btn outline"
        :to="{ name: 'coverage', params: { review: review.id }, query: { study: study.id } }"
        >{{ t('found.inCoverage') }}</router-link
      >
    </div>
    <p v-if="work.retracted" class="wrong" role="note">{{ t('found.retractedText') }}</p>
    <p class="small">{{ ties }}</p>
    <p v-if="read.error.value" class="wrong" role="alert">{{ problem(read.error.value) }}</p>
    <RecordText v-if="read.data.value" :record="read.data.value" />
  </aside>
</template>

<style scoped>
aside {
  border-left: 1px solid var(--line);
  padding-left: 16px;
  overflow-y: auto;
  min-height: 0;
}

.acts {
  flex-wrap: wrap;
  gap: 6px;
  padding-bottom: 8px;
}

.wrong {
  color: var(--miss);
}

kbd {
  margin-left: 4px;
}
</style>
