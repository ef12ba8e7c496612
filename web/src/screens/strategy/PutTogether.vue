<script setup lang="ts">
import { useId, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { newId } from '@/state/edits'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'

/** Lines by their numbers become a line of their own, or the parts of one that is there. */
const props = defineProps<{ line?: string; was?: string }>()
const emit = defineEmits<{ done: [] }>()
const { t } = useI18n()
const review = useReview()
const problem = useProblem()

const text = ref(props.was ?? '')
const wrong = ref('')
const reading = ref(false)
const id = useId()

async function put() {
  if (reading.value || !text.value.trim()) return
  reading.value = true
  wrong.value = ''
  const said = text.value
  try {
    const of = await ask(
      api.POST('/api/reviews/{review}/lines/read', {
        params: { path: { review: review.id } },
        body: { text: said, before: props.line },
      }),
    )
    review.change(
      { key: props.line ? 'putOtherwise' : 'putTogether', params: { line: said } },
      {
        edits: [
          props.line
            ? { op: 'patchLine', id: props.line, patch: { of } }
            : { op: 'addLine', line: { id: newId(), of } },
        ],
      },
    )
    // What was typed meanwhile is the next line, and stays.
    if (!props.line && text.value === said) text.value = ''
    emit('done')
  } catch (e) {
    wrong.value = problem(e)
  } finally {
    reading.value = false
  }
}
</script>

<template>
  <form class="together" @submit.prevent="put">
    <input
      v-model="text"
      class="field mono"
      maxlength="2000"
      :aria-label="line ? t('strategy.otherwise') : t('strategy.putTogether')"
      :placeholder="t('strategy.forExample')"
      :aria-describedby="wrong ? id : undefined"
      :aria-invalid="!!wrong"
      @keydown.esc="emit('done')"
    />
    <button class="btn outline" :disabled="reading || !text.trim()">
      {{ t(line ? 'strategy.change' : 'strategy.put') }}
    </button>
    <p v-if="wrong" :id="id" class="wrong small" role="alert">{{ wrong }}</p>
  </form>
</template>

<style scoped>
.together {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}

.together .field {
  width: 260px;
}

.wrong {
  color: var(--miss);
  flex-basis: 100%;
}
</style>
