<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Edit } from '@/api/client'
import { newId } from '@/state/edits'
import { useReview } from '@/state/review'
import ConceptCard from './ConceptCard.vue'
import KeyStudies from './KeyStudies.vue'
import { frames } from './frames'

const { t } = useI18n()
const review = useReview()

const question = ref<string>()
function saveQuestion() {
  if (question.value !== undefined && question.value !== review.document.question) {
    review.change(
      { key: 'question', params: {} },
      { edits: [{ op: 'question', text: question.value.slice(0, 5000) }] },
    )
  }
  question.value = undefined
}

const frame = computed(() => frames.find((f) => f.id === review.document.frame))

/** Choosing a frame offers its parts: concepts for those that no concept has yet, on a review without any. */
function choose(id: string) {
  const chosen = frames.find((f) => f.id === id)
  const edits: Edit[] = [{ op: 'frame', frame: id }]
  if (chosen && !review.document.blocks.length) {
    for (const part of chosen.parts) edits.push({ op: 'addBlock', block: emptyBlock(part) })
  }
  review.change(
    { key: 'frame', params: { frame: chosen ? t(`frame.${id}`) : t('frame.none') } },
    { edits },
  )
}

function emptyBlock(part = '') {
  return {
    id: newId(),
    name: '',
    concept: '',
    part,
    seeds: [],
    searched: true,
    reason: '',
    negated: false,
    terms: [],
  }
}

function addConcept() {
  review.change(
    { key: 'addConcept', params: {} },
    { edits: [{ op: 'addBlock', block: emptyBlock() }] },
  )
}
</script>

<template>
  <div class="screen">
    <label class="visually-hidden" for="question">{{ t('question.label') }}</label>
    <textarea
      id="question"
      class="question display"
      :value="question ?? review.document.question"
      :placeholder="t('question.placeholder')"
      rows="2"
      maxlength="5000"
      @input="question = ($event.target as HTMLTextAreaElement).value"
      @change="saveQuestion"
      @keydown.ctrl.enter="saveQuestion"
    />
    <div class="row head">
      <h2 class="sect">{{ t('question.concepts') }}</h2>
      <span v-if="frame" class="small">{{
        frame.parts.map((p) => t(`part.${p}`)).join(', ')
      }}</span>
      <span class="grow" />
      <v-menu>
        <template #activator="{ props: menu }">
          <button class="btn bare" v-bind="menu">
            {{ frame ? t('question.changeFrame') : t('question.chooseFrame') }}
          </button>
        </template>
        <v-list>
          <v-list-item
            v-for="f in frames"
            :key="f.id"
            :title="t(`frame.${f.id}`)"
            :subtitle="f.parts.map((p) => t(`part.${p}`)).join(', ')"
            @click="choose(f.id)"
          />
          <v-list-item :title="t('frame.none')" @click="choose('')" />
        </v-list>
      </v-menu>
      <button class="btn bare" @click="addConcept">{{ t('question.addConcept') }}</button>
    </div>
    <div v-if="review.document.blocks.length" class="concepts">
      <ConceptCard
        v-for="b in review.document.blocks"
        :key="b.id"
        :block="b"
        :parts="frame?.parts ?? []"
      />
    </div>
    <p v-else class="small none">{{ t('question.noConcepts') }}</p>
    <KeyStudies />
  </div>
</template>

<style scoped>
.screen {
  overflow-y: auto;
  height: 100%;
  padding-bottom: 20px !important;
}

.question {
  display: block;
  width: 100%;
  max-width: 800px;
  border: 1px solid transparent;
  border-radius: var(--radius);
  background: transparent;
  font-size: 19px;
  line-height: 1.4;
  color: var(--ink);
  padding: 4px 8px;
  margin-left: -8px;
  resize: none;
  field-sizing: content;
  min-height: 60px;
}

.question:hover,
.question:focus {
  border-color: var(--line);
  background: var(--card);
}

.question::placeholder {
  color: var(--ink-3);
}

.head {
  margin-top: 12px;
}

.concepts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 12px;
  margin-top: 7px;
}

.none {
  padding: 14px 0;
}
</style>
