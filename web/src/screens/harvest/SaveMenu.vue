<script setup lang="ts">
import { useFileDialog } from '@vueuse/core'
import { useI18n } from 'vue-i18n'
import type { Facet } from '@/api/client'
import { saveBlob } from '@/parts/files/blob'
import { useNotes } from '@/state/notes'
import { useLooked } from '@/state/looked'
import { useReview } from '@/state/review'
import { readCandidates, writeCandidates } from './candidateFile'

/** Takes the tally out as a file, and the candidates with what is decided about them out and in. */
const props = defineProps<{ facet: Facet; decides: boolean }>()
const emit = defineEmits<{ plot: [as: 'png' | 'svg'] }>()
const { t } = useI18n()
const review = useReview()
const looked = useLooked()
const notes = useNotes()
const { open, onChange, reset } = useFileDialog({ accept: '.csv,text/csv', multiple: false })

function href(format: 'csv' | 'xlsx') {
  const called = looked.set ? `&called=${encodeURIComponent(looked.name(looked.set))}` : ''
  return `/api/reviews/${review.id}/tally/export?look=${review.look.name}&facet=${props.facet}&format=${format}${called}`
}

function out() {
  saveBlob(
    new Blob([writeCandidates(review.document, review.decisions, review.samples)], {
      type: 'text/csv;charset=utf-8',
    }),
    `${review.saved?.name ?? ''} ${t('saveTally.candidates')}.csv`,
  )
}

onChange(async (files) => {
  const file = files?.[0]
  if (!file) return
  reset()
  if (file.size > 20 << 20) return notes.say({ text: t('saveTally.tooLarge'), wrong: true })
  const read = readCandidates(await file.text(), review.document)
  if (!read) return notes.say({ text: t('saveTally.unread'), wrong: true })
  if (read.edits.length + read.decisions.length)
    review.change(
      { key: 'candidates', params: { name: file.name } },
      { edits: read.edits, decisions: read.decisions },
    )
  notes.say({
    text:
      t('saveTally.read', { n: read.edits.length + read.decisions.length }) +
      (read.passed
        ? ` ${t('saveTally.passed', { n: read.passed, lines: read.lines.slice(0, 8).join(', ') }, read.passed)}`
        : ''),
    wrong: read.passed > 0,
  })
})
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }"
      ><button class="btn bare" v-bind="menu">{{ t('saveTally.open') }}</button></template
    >
    <v-list :aria-label="t('saveTally.open')">
      <v-list-item :title="t('saveTally.csv')" :href="href('csv')" download />
      <v-list-item :title="t('saveTally.xlsx')" :href="href('xlsx')" download />
      <template v-if="decides || facet === 'authors' || facet === 'qualifiers'">
        <v-list-item :title="t('saveTally.plotSvg')" @click="emit('plot', 'svg')" />
        <v-list-item :title="t('saveTally.plot')" @click="emit('plot', 'png')" />
      </template>
      <template v-if="decides">
        <v-list-item :title="t('saveTally.out')" @click="out" />
        <v-list-item :title="t('saveTally.in')" @click="open()" />
      </template>
    </v-list>
  </v-menu>
</template>
