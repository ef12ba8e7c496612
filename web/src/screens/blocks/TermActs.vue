<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, Term } from '@/api/client'
import { useBench } from '@/state/bench'
import { moved } from '@/state/edits'
import { useNotes } from '@/state/notes'
import { termText, useReview } from '@/state/review'
import { useSteps } from '@/state/steps'

/** What can be done to a line of a block besides switching it: moved, noted on, put into another block, taken out. */
const props = defineProps<{
  block: Block
  term: Term
  first: boolean
  last: boolean
  ordered: boolean
}>()
const emit = defineEmits<{ note: []; group: [] }>()

const { t } = useI18n()
const review = useReview()
const bench = useBench()
const notes = useNotes()
const steps = useSteps()
const others = computed(() => review.document.blocks.filter((b) => b.id !== props.block.id))
const said = () => ({ term: termText(props.term), block: props.block.name })

function remove() {
  bench.rest(undefined)
  review.change(
    { key: 'removeTerm', params: said() },
    { edits: [{ op: 'removeTerm', block: props.block.id, id: props.term.id }] },
  )
  notes.say({
    text: t('change.removeTerm', said()),
    action: { label: t('steps.undo'), run: steps.undo },
  })
}

function move(by: number) {
  if (!props.ordered) return
  if (by < 0 ? props.first : props.last) return
  review.change(
    { key: 'moveTerm', params: said() },
    { edits: [moved(props.block, props.term.id, by)] },
  )
}

/** Puts the line into another block. */
function moveTo(other: Block) {
  bench.rest(undefined)
  review.change(
    { key: 'moveTo', params: { ...said(), to: other.name } },
    {
      edits: [
        { op: 'removeTerm', block: props.block.id, id: props.term.id },
        { op: 'addTerm', block: other.id, term: props.term },
      ],
    },
  )
}

function ungroup() {
  review.change(
    { key: 'ungroup', params: said() },
    {
      edits: [{ op: 'patchTerm', block: props.block.id, id: props.term.id, patch: { group: '' } }],
    },
  )
}

defineExpose({ move })
</script>

<template>
  <button
    class="ico"
    :disabled="first || !ordered"
    :aria-label="t('blocks.up', { term: termText(term) })"
    :title="t('blocks.upTip')"
    @click="move(-1)"
  >
    ↑
  </button>
  <button
    class="ico"
    :disabled="last || !ordered"
    :aria-label="t('blocks.down', { term: termText(term) })"
    :title="t('blocks.downTip')"
    @click="move(1)"
  >
    ↓
  </button>
  <v-menu>
    <template #activator="{ props: menu }">
      <button class="ico" v-bind="menu" :aria-label="t('blocks.more', { term: termText(term) })">
        ⋯
      </button>
    </template>
    <v-list>
      <v-list-item :title="t('blocks.note')" @click="emit('note')" />
      <v-list-item :title="t('group.into')" @click="emit('group')" />
      <v-list-item
        v-if="term.group"
        :title="t('group.out', { group: term.group })"
        @click="ungroup"
      />
      <v-list-item
        v-for="b in others"
        :key="b.id"
        :title="t('remark.move', { block: b.name })"
        @click="moveTo(b)"
      />
    </v-list>
  </v-menu>
  <button
    class="ico"
    :aria-label="t('blocks.removeOne', { term: termText(term) })"
    :title="t('act.remove')"
    @click="remove"
  >
    ×
  </button>
</template>

<style scoped>
.ico {
  border: 0;
  background: none;
  padding: 2px 6px;
  color: var(--ink-2);
  cursor: pointer;
}

.ico:hover:not(:disabled) {
  color: var(--plum);
}

.ico:disabled {
  opacity: 0.35;
  cursor: default;
}
</style>
