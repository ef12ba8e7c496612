<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Bench, Block, Remark, Term } from '@/api/client'
import { useBench } from '@/state/bench'
import { termText, useReview } from '@/state/review'
import { useRemarkNotes, type Mend } from './remarkNotes'

/** What is to be said of a term: each a plain note that opens into what can be done about it, or is not said again. */
const props = defineProps<{
  block: Block
  term: Term
  figures?: Bench['blocks'][number]['terms'][number]
  remarks: Remark[]
}>()

const { t } = useI18n()
const review = useReview()
const bench = useBench()

const notes = useRemarkNotes(props)

function rest(m?: Mend) {
  bench.rest(
    m?.edits.length ? { edits: m.edits, label: m.label, block: props.block.id } : undefined,
  )
}

function mend(m: Mend) {
  bench.rest(undefined)
  if (m.edits.length)
    review.change(
      {
        key: 'mend',
        params: { what: m.label, term: termText(props.term), block: props.block.name },
      },
      { edits: m.edits },
    )
}

function hush(kind: string) {
  const quiet = [...(props.term.quiet ?? []), kind]
  review.change(
    { key: 'quiet', params: { term: termText(props.term), block: props.block.name } },
    { edits: [{ op: 'patchTerm', block: props.block.id, id: props.term.id, patch: { quiet } }] },
  )
}
</script>

<template>
  <v-menu v-for="note in notes" :key="note.kind">
    <template #activator="{ props: menu }">
      <button class="note" v-bind="menu" :aria-label="t('remark.open', { remark: note.text })">
        {{ note.text }}
      </button>
    </template>
    <v-list :aria-label="t('remark.mends', { term: termText(term) })">
      <v-list-subheader v-if="note.more">{{ note.more }}</v-list-subheader>
      <v-list-item
        v-for="m in note.mends"
        :key="m.label"
        :title="m.label"
        @mouseenter="rest(m)"
        @mouseleave="rest()"
        @focus="rest(m)"
        @blur="rest()"
        @click="mend(m)"
      />
      <v-list-item v-if="note.show" :title="t('remark.show')" @click="note.show" />
      <v-list-item :title="t('remark.quiet')" @click="hush(note.kind)" />
    </v-list>
  </v-menu>
</template>

<style scoped>
.note {
  border: 0;
  font-size: 11.5px;
  color: var(--gold-deep);
  background: var(--gold-soft);
  border-radius: 4px;
  padding: 1px 6px;
  cursor: pointer;
  text-align: left;
}

.note:hover {
  text-decoration: underline;
}
</style>
