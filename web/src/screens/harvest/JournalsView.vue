<script setup lang="ts">
import Papa from 'papaparse'
import { marked } from '@/parts/files/cells'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Tally, TallyRow } from '@/api/client'
import DraftField from '@/parts/DraftField.vue'
import { useReader } from '@/parts/reader'
import { useRowsInSight } from '@/parts/rowsInSight'
import { saveBlob } from '@/parts/files/blob'
import { useLooked } from '@/state/looked'
import { useReview } from '@/state/review'

/** Journals: how much of the topic each holds, and the list of those that are read by hand. */
const props = defineProps<{ tally: Tally }>()

const { t, n } = useI18n()
const review = useReview()
const looked = useLooked()
const reader = useReader()

const rows = computed(() =>
  [...props.tally.rows].sort((a, b) => b.records - a.records || (a.item < b.item ? -1 : 1)),
)
const half = computed(() => props.tally.half ?? 0)
const most = computed(() => rows.value[0]?.records ?? 1)
const listed = computed(() => review.document.handSearch ?? [])
const key = (r: TallyRow) => r.key ?? r.item
const on = (r: TallyRow) => listed.value.some((h) => h.journal === key(r))
const scroller = ref<HTMLElement>()
const { drawn, whole } = useRowsInSight(scroller, () => rows.value.length, 30)

function toggle(r: TallyRow) {
  review.change(
    { key: on(r) ? 'notHandSearch' : 'handSearch', params: { journal: r.item } },
    { edits: [{ op: 'handSearch', journal: key(r), name: r.item, on: !on(r) }] },
  )
}
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
const records = (r: TallyRow) =>
  reader.list({ kind: 'item', facet: 'journals', item: r.item }, r.item)

/** What stands in the list, with its figures as they are now. */
const lines = computed(() =>
  listed.value.map((h) => ({ ...h, row: props.tally.rows.find((r) => key(r) === h.journal) })),
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
  <div class="from-above">
    <div class="main">
      <p v-if="half" class="small">{{ t('journals.half', { n: half }, half) }}</p>
      <div class="line head" role="presentation">
        <span>{{ t('shape.item.journals') }}</span><span>{{ t('figure.records') }}</span
        ><span :title="t('journals.share')">{{ t('shape.share') }}</span
        ><span v-if="tally.hasKeys" :title="t('journals.keys')">{{ t('figure.keys') }}</span
        ><span :title="t('journals.unindexedTip')">{{ t('journals.unindexed') }}</span
        ><span>{{ t('journals.cumulated') }}</span>
      </div>
      <div
        ref="scroller"
        class="scroller"
        tabindex="0"
        role="list"
        :aria-label="t('facet.journals')"
      >
        <div role="presentation" :style="whole">
          <div
            v-for="(at, place) in drawn"
            :key="place"
            role="listitem"
            class="line"
            :class="{ half: at + 1 === half, on: on(rows[at]) }"
          >
            <span class="name"
              ><button
                class="mark"
                :aria-pressed="on(rows[at])"
                :aria-label="
                  t(on(rows[at]) ? 'journals.remove' : 'journals.add', { journal: rows[at].item })
                "
                @click="toggle(rows[at])"
              >
                {{ on(rows[at]) ? '✓' : '+' }}</button
              ><span class="cut" :title="rows[at].item">{{ rows[at].item }}</span></span
            >
            <span
              ><i :style="{ width: `${(rows[at].records / most) * 40}px` }" /><button
                class="link"
                @click="records(rows[at])"
              >
                {{ n(rows[at].records, 'whole') }}
              </button></span
            >
            <span>{{ n(rows[at].share, 'share') }}</span>
            <span v-if="tally.hasKeys">{{ rows[at].keys }}</span>
            <span
              ><button
                v-if="rows[at].unindexed"
                class="link"
                :aria-label="
                  t('shape.bareOf', { n: n(rows[at].unindexed, 'whole'), item: rows[at].item })
                "
                @click="
                  reader.list(
                    { kind: 'aspect', facet: 'journals', item: rows[at].item, aspect: 'bare' },
                    t('looked.bare', { item: rows[at].item }),
                  )
                "
              >
                {{ n(rows[at].bare ?? 0, 'share') }}</button
              ><template v-else>{{ n(0, 'share') }}</template></span
            >
            <span>{{ n(rows[at].upTo ?? 0, 'share') }}</span>
          </div>
        </div>
      </div>
    </div>
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
  </div>
</template>

<style scoped>
.main {
  overflow: hidden;
  display: flex;
  flex-direction: column;
  min-height: 0;
}

h2 {
  font-size: 14px;
  font-weight: 650;
}

.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 94px 56px 46px 76px 76px;
  align-items: center;
  height: 30px;
  border-bottom: 1px solid var(--line-soft);
}

.line > span {
  text-align: right;
  padding: 0 6px;
  white-space: nowrap;
}

.line > span:first-child {
  text-align: left;
}

.head {
  font: 600 11.5px var(--ui);
  color: var(--ink-2);
  padding-right: 10px;
}

.scroller {
  flex: 1;
  min-height: 200px;
  overflow-y: auto;
}

@media (max-width: 820px) {
  .scroller {
    flex: none;
    height: 310px;
  }
}

.line.half {
  border-bottom: 2px solid var(--gold-bright);
}

.line.on .name {
  font-weight: 650;
}

.name {
  display: flex;
  align-items: center;
  gap: 7px;
  min-width: 0;
}

.mark {
  flex: none;
  width: 20px;
  height: 20px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--white);
  cursor: pointer;
  line-height: 1;
}

.mark[aria-pressed='true'] {
  background: var(--plum);
  border-color: var(--plum);
  color: #fff;
}

i {
  display: inline-block;
  height: 7px;
  background: var(--plum);
  margin-right: 6px;
  border-radius: 1px;
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
