<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Check } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'
import { useReview } from '@/state/review'
import CheckQuestion from './CheckQuestion.vue'
import SheetLine from './SheetLine.vue'
import SuggestionList from './SuggestionList.vue'

/** A version as a colleague looks at it: six questions with what Tamiz itself found, and its lines, of which each can be otherwise. */
const props = defineProps<{ check: Check }>()
const emit = defineEmits<{ act: [call: Promise<unknown>] }>()
const once = useOnce()
const { t } = useI18n()
const review = useReview()
const problem = useProblem()

const asked = useFigure(figures.checkSheet, () => ({ check: props.check.id }), { keep: true })
const sheet = computed(() => asked.data.value)
const questions = ['translation', 'operators', 'headings', 'words', 'spelling', 'limits'] as const
const found = (q: string) => sheet.value?.findings.filter((f) => f.question === q) ?? []
const path = computed(() => ({ review: review.id, check: props.check.id }))
</script>

<template>
  <div>
    <p v-if="asked.error.value" class="wrong" role="alert">{{ problem(asked.error.value) }}</p>
    <div class="both">
      <ol class="questions" :aria-label="t('check.questions')">
        <CheckQuestion
          v-for="q in questions"
          :key="q"
          :question="q"
          :answer="check.answers.find((a) => a.question === q)"
          :findings="found(q)"
          :open="!check.done"
          @say="
            (verdict, words) =>
              emit(
                'act',
                ask(
                  api.PUT('/api/reviews/{review}/checks/{check}/answers/{question}', {
                    params: { path: { ...path, question: q } },
                    body: { verdict, words },
                  }),
                ),
              )
          "
        />
      </ol>
      <div>
        <h2 class="sect">{{ t('check.lines') }}</h2>
        <p v-if="!check.done" class="small">{{ t('check.linesHint') }}</p>
        <ul class="lines" :aria-label="t('check.lines')">
          <SheetLine
            v-for="l in sheet?.lines ?? []"
            :key="l.number"
            :line="l"
            :open="!check.done"
            @suggest="
              (s) =>
                emit(
                  'act',
                  once(
                    (headers) =>
                      ask(
                        api.POST('/api/reviews/{review}/checks/{check}/suggestions', {
                          params: { path },
                          headers,
                          body: s,
                        }),
                      ),
                    s,
                  ),
                )
            "
          />
        </ul>
        <SuggestionList
          :suggestions="check.suggestions"
          @decide="
            (s, state) =>
              emit(
                'act',
                ask(
                  api.PATCH('/api/reviews/{review}/checks/{check}/suggestions/{suggestion}', {
                    params: { path: { ...path, suggestion: s.id! } },
                    body: { state },
                  }),
                ),
              )
          "
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: minmax(0, 6fr) minmax(0, 5fr);
  gap: 20px;
  align-items: start;
}

.questions,
.lines {
  list-style: none;
  padding: 0;
}

.wrong {
  color: var(--miss);
}

@media (max-width: 1000px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
