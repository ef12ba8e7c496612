<script setup lang="ts">
import Papa from 'papaparse'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Tally } from '@/api/client'
import DraftField from '@/parts/DraftField.vue'
import { saveBlob } from '@/parts/files/blob'
import { marked } from '@/parts/files/cells'
import { useLooked } from '@/state/looked'
import { useReview } from '@/state/review'
import { journalKey } from './journals'

/** The journals that are read by hand, with notes, to be saved and printed. */
const props = defineProps<{ tally: Tally }>()

const { t } = useI18n()
const review = useReview()
const looked = useLooked()
const listed = computed(() => review.document.handSearch ?? [])

function note(journal: string, name: string, text: string) {
  review.change(
    { key: 'handNote', params: { journal: name } },
    { edits: [{ op: 'handSearch', journal, name, note: text, on: true }] },
  )
}
function remove(journal: string, name: string) {
  review.change(
    { key: 'notHandSearch', params: { journal: name } },
    { edits: [{ op: 'handSearch', journal, name, on: false }] },
  )
}
/** What stands in the list, with its figures as they are now. */
const lines = computed(() =>
  listed.value.map((h) => ({
    ...h,
    row: props.tally.rows.find((r) => journalKey(r) === h.journal),
  })),
)

/** A page of the list alone, in a window of its own. */
function print() {
  const page = window.open('', '_blank')
  if (!page) return
  const doc = page.document
  doc.title = t('journals.list')
  const put = (tag: string, text: string, into: Element = doc.body) =>
    into.appendChild(Object.assign(doc.createElement(tag), { textContent: text }))
  put('h1', `${review.saved?.name ?? ''}: ${t('journals.list')}`)
  for (const h of listed.value) {
    put('h2', h.name)
    if (h.note) put('p', h.note)
  }
  page.print()
}

function save() {
  const data = lines.value.map((l) => [
    marked(l.name),
    l.row?.records ?? '',
    l.row?.keys ?? '',
    l.row?.unindexed ?? '',
    marked(l.note),
  ])
  const text = Papa.unparse(
    { fields: ['journal', 'records', 'key_studies', 'unindexed', 'note'], data },
    { newline: '\r\n' },
  )
  saveBlob(
    new Blob([`${text}\r\n`], { type: 'text/csv;charset=utf-8' }),
    `${t('journals.list')}.csv`,
  )
}

/** Where the list is as a document. */
const file = computed(() => {
  const asked = new URLSearchParams({ format: 'docx' })
  if (review.look.name) asked.set('look', review.look.name)
  if (looked.set) asked.set('called', looked.name(looked.set).slice(0, 500))
  return `/api/reviews/${review.id}/handsearch/file?${asked}`
})
</script>

<template>
  <aside :aria-label="t('journals.list')">
    <h2>{{ t('journals.list') }}</h2>
    <p class="small">{{ t(listed.length ? 'journals.listText' : 'journals.empty') }}</p>
    <ul>
      <li v-for="h in listed" :key="h.journal">
        <div class="row">
          <b>{{ h.name }}</b><span class="grow" /><router-link
            class="btn bare"
            :to="{
              name: 'studies',
              params: { review: review.id },
              query: { way: 'journal', name: h.name },
            }"
            :aria-label="t('journals.throughOne', { journal: h.name })"
            >{{ t('journals.through') }}</router-link
          ><button
            class="btn bare"
            :aria-label="t('journals.remove', { journal: h.name })"
            @click="remove(h.journal, h.name)"
          >
            ×
          </button>
        </div>
        <DraftField
          class="field"
          :lines="2"
          :maxlength="2000"
          :aria-label="t('journals.note', { journal: h.name })"
          :placeholder="t('journals.notePlace')"
          :value="h.note"
          @typed="note(h.journal, h.name, $event)"
        />
      </li>
    </ul>
    <p v-if="listed.length" class="row">
      <span class="small">{{ t('journals.save') }}</span><a
        class="btn outline"
        :href="file"
        download
        >DOCX</a
      ><button class="btn outline" @click="save">CSV</button
      ><button class="btn bare" @click="print">{{ t('journals.print') }}</button>
    </p>
  </aside>
</template>

<style scoped>
h2 {
  font-size: 14px;
  font-weight: 650;
}

li {
  border-top: 1px solid var(--line-soft);
  padding: 7px 0;
}

textarea {
  width: 100%;
  resize: vertical;
}
</style>
