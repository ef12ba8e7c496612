<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Vocabulary } from '@/api/client'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useVocabularies } from '@/state/vocabularies'

/** The vocabularies that the program has, of each the latest edition: one of them can be gone by. */
const { t, n, d } = useI18n()
const review = useReview()
const notes = useNotes()
const problem = useProblem()
const { vocabularies, usedBy, refetch } = useVocabularies()
/** Those that a source is tied to come first. */
const others = computed(() =>
  vocabularies.value
    .filter((v) => !v.later && v.id !== review.vocabulary?.id)
    .sort((a, b) => Number(usedBy(b.name).length > 0) - Number(usedBy(a.name).length > 0)),
)
/** It is everybody's, and cannot be taken back: it is pressed twice. */
const sure = ref<number>()
async function remove(v: Vocabulary) {
  if (sure.value !== v.id) {
    sure.value = v.id
    return
  }
  sure.value = undefined
  try {
    await ask(
      api.DELETE('/api/vocabularies/{vocabulary}', { params: { path: { vocabulary: v.id } } }),
    )
    notes.say({ text: t('vocabularies.gone', { name: v.name }) })
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
  await refetch()
}
function use(v: Vocabulary) {
  review.change(
    { key: 'vocabulary', params: { name: v.name } },
    { edits: [{ op: 'vocabulary', vocabulary: v.id }] },
  )
}
</script>

<template>
  <ul v-if="others.length" class="choices" :aria-label="t('vocabularies.title')">
    <li v-for="v in others" :key="v.id" class="row">
      <b>{{ v.name }}</b>
      <span class="small"
        >{{ t('vocabularies.headings', { n: n(v.headings, 'whole') }, v.headings)
        }}<template v-if="v.languages.length"
          >, {{ t('vocabularies.languages', { languages: v.languages.join(', ') }) }}</template
        >, {{ t('vocabularies.read', { day: d(v.made, 'day') })
        }}<template v-if="usedBy(v.name).length"
          >, {{ t('vocabularies.usedBy', { sources: usedBy(v.name).join(', ') }) }}</template
        ></span
      >
      <span class="grow" />
      <button class="btn outline" @click="use(v)">
        {{ t('vocabularies.use', { name: v.name }) }}
      </button>
      <button
        class="btn bare"
        :aria-label="
          t(sure === v.id ? 'vocabularies.sureOf' : 'vocabularies.delete', { name: v.name })
        "
        @click="remove(v)"
        @blur="sure = undefined"
      >
        {{ t(sure === v.id ? 'vocabularies.sure' : 'act.delete') }}
      </button>
    </li>
  </ul>
</template>

<style scoped>
.choices {
  display: grid;
  gap: 6px;
  padding: 0 8px 6px;
}
</style>
