<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import FileDrop from '@/parts/FileDrop.vue'
import ImportProgress from '@/parts/ImportProgress.vue'
import { useImports } from '@/state/imports'
import { useNotes } from '@/state/notes'
import { useReview } from '@/state/review'
import { useSteps } from '@/state/steps'
import VocabularyChoice from '@/parts/VocabularyChoice.vue'
import LaterEdition from './LaterEdition.vue'
import NoticesDialog from './NoticesDialog.vue'

/** The controlled vocabulary that headings go by: it says what is a heading, and what stands below it. */
const { t, n } = useI18n()
const review = useReview()
const imports = useImports()
const notes = useNotes()
const steps = useSteps()
const reading = ref(false)

function remove() {
  const name = review.vocabulary?.name ?? ''
  review.change({ key: 'removeVocabulary', params: { name } }, { edits: [{ op: 'vocabulary' }] })
  notes.say({
    text: t('note.removedVocabulary', { name }),
    action: { label: t('steps.undo'), run: steps.undo },
  })
}
</script>

<template>
  <FileDrop
    :hint="t('vocabulary.drop')"
    accept=".nt,.rdf,.xml,.jsonld,.json,application/n-triples,application/rdf+xml,application/ld+json"
    class="vocabulary"
    @files="imports.bring($event.slice(0, 1), 'vocabulary')"
    @drop.stop
    @dragenter.stop
  >
    <template #default="{ choose }">
      <div class="row head">
        <h2 class="sect">{{ t('vocabulary.title') }}</h2>
        <span class="grow" />
        <button class="btn outline" @click="choose">
          {{ t(review.vocabulary ? 'vocabulary.other' : 'vocabulary.bring') }}
        </button>
      </div>
      <ImportProgress kind="vocabulary" />
      <p v-if="review.vocabulary" class="row is">
        <b>{{ review.vocabulary.name }}</b>
        <span class="small">{{
          t(
            'vocabulary.holds',
            { n: n(review.vocabulary.headings, 'whole') },
            review.vocabulary.headings,
          )
        }}</span>
        <button
          v-if="review.vocabulary.notices && review.vocabulary.import"
          class="link small"
          @click="reading = true"
        >
          {{
            t(
              'samples.remarks',
              { n: n(review.vocabulary.notices, 'whole') },
              review.vocabulary.notices,
            )
          }}
        </button>
        <span class="grow" />
        <button
          class="btn bare"
          :aria-label="t('vocabulary.removeOne', { name: review.vocabulary.name })"
          @click="remove"
        >
          {{ t('act.remove') }}
        </button>
      </p>
      <p v-else class="small">{{ t('vocabulary.none') }}</p>
      <LaterEdition v-if="review.vocabulary" />
      <VocabularyChoice />
      <NoticesDialog
        v-if="reading && review.vocabulary?.import"
        :of="{
          import: review.vocabulary.import,
          name: review.vocabulary.name,
          fileName: review.vocabulary.name,
          sum: t(
            'vocabulary.holds',
            { n: n(review.vocabulary.headings, 'whole') },
            review.vocabulary.headings,
          ),
        }"
        @close="reading = false"
      />
    </template>
  </FileDrop>
</template>

<style scoped>
.vocabulary {
  margin-top: 26px;
  padding: 0 0 8px;
}

.head {
  min-height: 34px;
  border-bottom: 1px solid var(--line);
}

.is {
  padding: 8px;
}

p.small {
  padding: 8px;
  max-width: 640px;
}

.link {
  color: var(--gold-deep);
}
</style>
