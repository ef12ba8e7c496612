<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { CheckAnswer, SheetFinding } from '@/api/client'

/** One question of a check: what Tamiz itself found, and what the colleague says to it. */
const props = defineProps<{
  question: string
  answer?: CheckAnswer
  findings: SheetFinding[]
  open: boolean
}>()
const emit = defineEmits<{ say: [verdict: CheckAnswer['verdict'], words: string] }>()
const { t } = useI18n()

const verdicts = ['fine', 'revise', 'suggest'] as const
const verdict = ref<CheckAnswer['verdict'] | undefined>(props.answer?.verdict)
const words = ref(props.answer?.words ?? '')
/** What somebody else said meanwhile shows where nothing is being typed here. */
watch(
  () => props.answer,
  (now, was) => {
    if (now && words.value === (was?.words ?? '')) {
      verdict.value = now.verdict
      words.value = now.words
    }
  },
)
const changed = computed(
  () =>
    verdict.value !== undefined &&
    (verdict.value !== props.answer?.verdict || words.value.trim() !== props.answer?.words),
)
const lacking = computed(() => verdict.value !== 'fine' && !words.value.trim())
function say() {
  if (verdict.value && changed.value && !lacking.value) emit('say', verdict.value, words.value)
}
function choose(v: CheckAnswer['verdict']) {
  verdict.value = v
  say()
}
</script>

<template>
  <li class="card question">
    <h2>{{ t(`check.ask.${question}`) }}</h2>
    <ul v-if="findings.length" class="found small" :aria-label="t('check.found')">
      <li v-for="(f, i) in findings" :key="i">
        <span v-if="f.number" class="mono">{{ f.number }}</span>{{ ' ' }}{{ f.why }}
      </li>
    </ul>
    <p v-else class="small">{{ t('check.nothing') }}</p>
    <fieldset v-if="open" class="answer">
      <legend class="visually-hidden">{{ t(`check.ask.${question}`) }}</legend>
      <label v-for="v in verdicts" :key="v" class="row"
        ><input
          type="radio"
          :name="question"
          :value="v"
          :checked="verdict === v"
          @change="choose(v)"
        />{{ t(`check.verdict.${v}`) }}</label
      >
      <textarea
        v-model="words"
        class="field"
        rows="2"
        maxlength="4000"
        :aria-label="t('check.words')"
        :placeholder="t('check.words')"
        @blur="say"
      />
      <p v-if="verdict && lacking" class="small need" role="status">{{ t('check.needsWords') }}</p>
      <p v-else-if="answer && !changed" class="small" role="status">
        {{ t('check.kept', { who: answer.who ?? '' }) }}
      </p>
    </fieldset>
    <p v-else-if="answer">
      <b>{{ t(`check.verdict.${answer.verdict}`) }}</b>{{ ' ' }}{{ answer.words }}
    </p>
  </li>
</template>

<style scoped>
.question {
  padding: 11px 14px;
  margin-bottom: 9px;
}

.question h2 {
  font-size: 15px;
}

.found {
  margin: 5px 0;
  padding-left: 18px;
  color: var(--gold-deep);
  overflow-wrap: anywhere;
}

.answer {
  border: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  margin-top: 6px;
}

.answer textarea {
  flex-basis: 100%;
  box-sizing: border-box;
}

.answer p {
  flex-basis: 100%;
}

.need {
  color: var(--gold-deep);
}
</style>
