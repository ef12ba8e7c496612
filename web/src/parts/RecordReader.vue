<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Chip, type Facet } from '@/api/client'
import { useDecide } from '@/state/decide'
import { useReview } from '@/state/review'
import { useShelf } from '@/state/shelf'
import BlockStamp from './BlockStamp.vue'
import { useSaving } from './files/saving'
import MarkedText from './MarkedText.vue'
import { useReader } from './reader'
import { useTaking } from './taking'

const pageSize = 100
const { t, n } = useI18n()
const review = useReview()
const reader = useReader()
const saving = useSaving()
const shelf = useShelf()
const { termOf, add, decide } = useDecide()

const at = ref(0) // the place in the list of the record that is read
const page = computed(() => Math.floor(at.value / pageSize))

const list = useQuery({
  queryKey: computed(() => ['records', review.id, review.revision, review.viewStamp, reader.set, page.value]),
  queryFn: () =>
    ask(api.POST('/api/reviews/{review}/records', { params: { path: { review: review.id } }, body: { of: reader.set ?? {}, at: page.value * pageSize, limit: pageSize } })),
  enabled: () => reader.open && reader.set !== undefined,
  placeholderData: keepPreviousData,
})
const heads = computed(() => (reader.set ? (list.data.value?.records ?? []) : []))
const total = computed(() => (reader.set ? (list.data.value?.total ?? 0) : 1))
const current = computed(() => (reader.set ? heads.value[at.value - page.value * pageSize]?.id : reader.single))

const read = useQuery({
  queryKey: computed(() => ['record', review.id, review.revision, review.keysStamp, current.value, reader.item]),
  queryFn: () =>
    ask(
      api.GET('/api/reviews/{review}/records/{record}', {
        params: { path: { review: review.id, record: current.value ?? 0 }, query: reader.item ? { facet: reader.item.facet, item: reader.item.item } : {} },
      }),
    ),
  enabled: () => reader.open && current.value !== undefined,
  placeholderData: keepPreviousData,
})
const record = computed(() => read.data.value)

watch(
  () => [reader.open, reader.set, reader.single],
  () => {
    at.value = 0
  },
)
// A list that was opened at one of its records begins there.
watch(heads, (rows) => {
  if (reader.single === undefined) return
  const i = rows.findIndex((r) => r.id === reader.single)
  if (i >= 0) at.value = page.value * pageSize + i
  reader.single = undefined
})

function go(by: number) {
  at.value = Math.min(Math.max(at.value + by, 0), Math.max(total.value - 1, 0))
}

/** Keeps the record that is read on the shelf, or takes it off. */
function keep() {
  if (record.value) shelf.toggle(record.value.id, record.value.title.map((p) => p.text).join(''))
}

// Wherever the focus is: keys are pressed as soon as the reader shows.
useEventListener('keydown', (e: KeyboardEvent) => {
  if (!reader.open || saving.open || e.defaultPrevented) return
  if (e.key.toLowerCase() === 'k' && !e.ctrlKey && !e.metaKey && !e.altKey && !(e.target as HTMLElement).matches('input, textarea, select')) {
    e.preventDefault()
    return keep()
  }
  const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[e.key]
  if (!by || (e.target as HTMLElement).closest('.v-list')) return
  e.preventDefault()
  go(by)
})

const text = ref<HTMLElement>()
const { marked, takeWords, parkAll } = useTaking(text, record)

function itemOf(facet: Facet, chip: Chip) {
  return { facet, item: chip.label, key: chip.label }
}

const byline = computed(() => [record.value?.authors.slice(0, 6).join('; '), record.value?.journal, record.value?.year || undefined].filter(Boolean).join(' · '))
</script>

<template>
  <v-dialog v-model="reader.open" :max-width="reader.set ? 1040 : 720" :aria-label="reader.title">
    <v-card class="reader">
      <div class="head">
        <h2 class="display cut">{{ reader.title }}</h2>
        <span v-if="reader.set" class="small">{{ t('reader.place', { at: n(total ? at + 1 : 0, 'whole'), of: n(total, 'whole') }) }}</span>
        <span class="grow" />
        <button v-if="record" class="btn outline" :class="{ kept: review.shelf.has(record.id) }" :aria-pressed="review.shelf.has(record.id)" :title="review.shelf.has(record.id) ? t('shelf.off') : t('shelf.put')" @click="keep">{{ review.shelf.has(record.id) ? t('shelf.on') : t('shelf.put') }} <kbd>K</kbd></button>
        <button class="btn bare" @click="saving.save(reader.set ?? { ids: [record?.id ?? 0] }, reader.title, total)">{{ t('save.open') }}</button>
        <template v-if="reader.set">
          <button class="btn outline" :disabled="at === 0" @click="go(-1)">{{ t('reader.previous') }} <kbd>←</kbd></button>
          <button class="btn outline" :disabled="at >= total - 1" @click="go(1)">{{ t('reader.next') }} <kbd>→</kbd></button>
        </template>
        <button class="btn bare" @click="reader.open = false">{{ t('reader.close') }}</button>
      </div>
      <div class="body">
        <ol v-if="reader.set" class="list" tabindex="0" :aria-label="t('reader.list')">
          <li v-for="(r, i) in heads" :key="r.id">
            <button :class="{ here: page * pageSize + i === at }" :aria-current="page * pageSize + i === at" @click="at = page * pageSize + i">
              <span class="title">{{ r.title || t('record.noTitle') }}</span>
              <span class="small">{{ [r.byline, r.year || undefined].filter(Boolean).join(' ') }}<template v-if="r.key"> · {{ t('record.key') }}</template><template v-if="!r.indexed"> · {{ t('record.unindexed') }}</template><b v-if="review.shelf.has(r.id)"> · {{ t('shelf.on') }}</b></span>
            </button>
          </li>
          <li v-if="total > (page + 1) * pageSize" class="more"><button class="btn bare" @click="at = (page + 1) * pageSize">{{ t('reader.more', { n: n(total - (page + 1) * pageSize, 'whole') }) }}</button></li>
        </ol>
        <article v-if="record" ref="text" tabindex="0" :aria-label="t('reader.record')">
          <h3 class="display"><MarkedText :pieces="record.title" /><template v-if="!record.title.length">{{ t('record.noTitle') }}</template></h3>
          <p class="small">{{ byline }}<template v-if="record.key"> · <b>{{ t('record.key') }}</b></template><template v-if="!record.indexed"> · {{ t('record.unindexed') }}</template></p>
          <p class="abstract"><MarkedText :pieces="record.abstract" /><em v-if="!record.abstract.length" class="small">{{ t('record.noAbstract') }}</em></p>
          <div v-for="(o, i) in record.others" :key="i" class="other" :lang="o.language.slice(0, 2) || undefined">
            <h4 class="sect">{{ o.title ? t('recordField.otherTitles') : t('recordField.otherAbstracts') }} <template v-if="o.language">({{ o.language }})</template></h4>
            <p><b>{{ o.title }}</b></p>
            <p>{{ o.abstract }}</p>
          </div>
          <div v-if="marked" class="take card" role="group" :aria-label="t('take.selection', { words: marked })">
            <span class="mono cut">{{ marked }}</span>
            <button v-for="b in review.document.blocks" :key="b.id" class="btn outline" @click="takeWords(b)">{{ t('act.addTo', { block: b.name }) }}</button>
            <button class="btn bare" @click="takeWords()">{{ t('act.park') }}</button>
          </div>
          <p v-else class="small">{{ t('take.hint') }} <button v-if="record.headings.length + record.keywords.length" class="link small" @click="parkAll">{{ t('take.all') }}</button></p>
          <template v-for="group in [{ facet: 'headings' as Facet, chips: record.headings }, { facet: 'keywords' as Facet, chips: record.keywords }]" :key="group.facet">
            <h4 v-if="group.chips.length" class="sect">{{ t(`record.${group.facet}`) }}</h4>
            <div class="chips">
              <v-menu v-for="(c, i) in group.chips" :key="i">
                <template #activator="{ props: menu }">
                  <button v-bind="menu" class="chip" :class="{ heading: group.facet === 'headings' }">
                    <span v-if="c.central" class="star" :title="t('record.central')">★</span>{{ c.label }}
                    <em v-if="c.qualifiers?.length">/ {{ c.qualifiers.join(' / ') }}</em>
                    <BlockStamp v-for="b in c.blocks" :key="b" :name="b" :size="15" />
                  </button>
                </template>
                <v-list>
                  <v-list-item v-for="b in review.document.blocks" :key="b.id" :title="t('act.addTo', { block: b.name })" @click="add(b, termOf(itemOf(group.facet, c)), itemOf(group.facet, c))" />
                  <v-list-item :title="t('act.park')" @click="decide([itemOf(group.facet, c)], 'parked')" />
                </v-list>
              </v-menu>
            </div>
          </template>
          <p class="small ids">{{ [record.recordId, record.doi && `DOI ${record.doi}`, record.types.join(', '), record.languages.join(', ')].filter(Boolean).join(' · ') }}</p>
        </article>
        <p v-else-if="reader.set && list.data.value && !total" class="small none">{{ t('reader.none') }}</p>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.reader {
  height: min(660px, 84vh);
  display: flex;
  flex-direction: column;
}

.head {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 10px 16px;
  border-bottom: 1px solid var(--line);
}

h2 {
  font-size: 16px;
  font-weight: 600;
}

.body {
  flex: 1;
  min-height: 0;
  display: flex;
}

.list {
  width: 350px;
  flex: none;
  overflow-y: auto;
  border-right: 1px solid var(--line);
}

.list button:not(.btn) {
  display: block;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  padding: 7px 14px;
  border-bottom: 1px solid var(--line-soft);
  cursor: pointer;
}

.list button.here {
  background: var(--gold-soft);
}

.list .title {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}

.list .small {
  display: block;
}

.more {
  padding: 6px 14px;
}

article {
  flex: 1;
  min-width: 0;
  overflow-y: auto;
  padding: 16px 20px;
}

h3 {
  font-size: 18px;
  line-height: 1.3;
  font-weight: 600;
  margin-bottom: 3px;
}

.abstract {
  margin: 12px 0 6px;
  line-height: 1.6;
  max-width: 68ch;
  overflow-wrap: anywhere;
}

h4 {
  margin: 14px 0 6px;
}

.btn.kept {
  background: var(--gold-soft);
}

.other {
  max-width: 68ch;
  overflow-wrap: anywhere;
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.chip {
  text-align: left;
}

.chip.heading {
  font-weight: 600;
}

.chip em {
  font-weight: 400;
}

.star {
  color: var(--gold-deep);
  font-size: 10px;
}

.ids {
  margin-top: 16px;
}

.take {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 6px 10px;
  position: sticky;
  bottom: 0;
}

.none {
  padding: 20px;
}

@media (max-width: 700px) {
  .body {
    flex-direction: column;
  }

  .list {
    width: auto;
    max-height: 34%;
    border-right: 0;
    border-bottom: 1px solid var(--line);
  }
}
</style>
