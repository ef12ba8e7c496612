<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import DraftField from '@/parts/DraftField.vue'
import OnSwitch from '@/parts/OnSwitch.vue'
import { useNotes } from '@/state/notes'
import { useReview } from '@/state/review'
import { useSteps } from '@/state/steps'
import NotDialog from './NotDialog.vue'
import SeedWords from './SeedWords.vue'
import { parts as allParts } from './frames'

/** One concept: its letter, what it is, its part in the frame, seed words, searched or kept out. */
const props = defineProps<{ block: Block; parts: readonly string[] }>()

const { t } = useI18n()
const review = useReview()
const notes = useNotes()
const steps = useSteps()
const not = ref(false)

function patch(change: Partial<Block>, key: string, params: Record<string, string> = {}) {
  review.change(
    { key, params: { block: props.block.name, ...params } },
    { edits: [{ op: 'patchBlock', id: props.block.id, patch: change }] },
  )
}

function remove() {
  const { name } = props.block
  review.change(
    { key: 'removeBlock', params: { block: name } },
    { edits: [{ op: 'removeBlock', id: props.block.id }] },
  )
  notes.say({
    text: t(
      'note.removedConcept',
      { block: name, n: props.block.terms.length },
      props.block.terms.length,
    ),
    action: { label: t('steps.undo'), run: steps.undo },
  })
}
</script>

<template>
  <article
    class="concept"
    :class="{ out: !block.searched }"
    :aria-label="t('question.concept', { block: block.name })"
  >
    <div class="row top">
      <BlockStamp :block="block.id" />
      <DraftField
        class="name display"
        :value="block.concept"
        :placeholder="t('block.unnamed')"
        :aria-label="t('question.conceptName', { block: block.name })"
        :maxlength="300"
        @typed="(concept) => patch({ concept }, 'renameConcept', { concept })"
      />
      <v-menu>
        <template #activator="{ props: menu }">
          <button
            class="part small"
            v-bind="menu"
            :aria-label="t('question.partOf', { block: block.name })"
          >
            {{ block.part ? t(`part.${block.part}`) : t('question.noPart') }}
          </button>
        </template>
        <v-list>
          <v-list-item
            v-for="p in parts.length ? parts : allParts"
            :key="p"
            :title="t(`part.${p}`)"
            @click="patch({ part: p }, 'part', { part: t(`part.${p}`) })"
          />
          <v-list-item
            :title="t('question.noPart')"
            @click="patch({ part: '' }, 'part', { part: t('question.noPart') })"
          />
          <v-list-item
            :title="t(block.searched && block.negated ? 'not.see' : 'not.try')"
            @click="not = true"
          />
          <v-list-item :title="t('question.removeConcept')" @click="remove" />
        </v-list>
      </v-menu>
    </div>
    <SeedWords :block="block" @patch="patch" />
    <div class="foot">
      <OnSwitch
        v-if="!(block.searched && block.negated)"
        :model-value="block.searched"
        :label="t('question.searchedLabel', { block: block.name })"
        @update:model-value="
          (on) => patch({ searched: on, negated: false }, on ? 'searched' : 'keptOut')
        "
      />
      <button v-if="block.searched && block.negated" class="link small not" @click="not = true">
        {{ t('not.is') }}
      </button>
      <span v-else class="small">{{
        block.searched ? t('question.searched') : t('question.keptOut')
      }}</span>
      <DraftField
        v-if="!block.searched"
        class="why small"
        :value="block.reason"
        :placeholder="t('question.why')"
        :aria-label="t('question.whyLabel', { block: block.name })"
        :maxlength="500"
        @typed="(reason) => patch({ reason }, 'reason')"
      />
    </div>
    <NotDialog v-if="not" v-model="not" :block="block" />
  </article>
</template>

<style scoped>
.concept {
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 7px;
  padding: 11px 13px 9px;
  min-width: 0;
  display: flex;
  flex-direction: column;
}

.concept.out {
  border-style: dashed;
  background: transparent;
}

.top {
  gap: 8px;
}

.name {
  flex: 1;
  min-width: 0;
  border: 0;
  border-bottom: 1px solid transparent;
  background: none;
  font-size: 15px;
  font-weight: 600;
  color: var(--ink);
}

.name:hover,
.name:focus {
  border-bottom-color: var(--line);
}

.part {
  border: 0;
  background: none;
  cursor: pointer;
  padding: 2px 0;
}

.part:hover {
  text-decoration: underline;
}

.foot {
  border-top: 1px solid var(--line-soft);
  padding-top: 6px;
  display: flex;
  align-items: center;
  gap: 8px;
}

.not {
  color: var(--miss);
  font-weight: 650;
}

.why {
  flex: 1;
  min-width: 0;
  border: 0;
  border-bottom: 1px solid transparent;
  background: none;
}

.why:hover,
.why:focus {
  border-bottom-color: var(--line);
}
</style>
