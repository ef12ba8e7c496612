<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { figures, useFigure } from '@/figures'
import { useRouter } from 'vue-router'
import { useLooked } from '@/state/looked'
import { useReview } from '@/state/review'
import { useShelf } from '@/state/shelf'
import { useSaving } from './files/saving'
import { useJudging } from './judging'
import { useRead } from './read'
import { useReader } from './reader'
import ReaderList from './ReaderList.vue'
import RecordText from './RecordText.vue'

const pageSize = 100
const { t, n } = useI18n()
const review = useReview()
const reader = useReader()
const saving = useSaving()
const shelf = useShelf()
const judging = useJudging()
const looked = useLooked()
const router = useRouter()

const at = ref(0) // the place in the list of the record that is read
const page = computed(() => Math.floor(at.value / pageSize))

const list = useFigure(
  figures.records,
  () => ({
    of: reader.set ?? { kind: 'all' as const },
    at: page.value * pageSize,
    limit: pageSize,
    look: reader.look,
  }),
  { enabled: () => reader.open && reader.set !== undefined, keep: true },
)
const heads = computed(() => (reader.set ? (list.data.value?.records ?? []) : []))
const total = computed(() => (reader.set ? (list.data.value?.total ?? 0) : 1))
const current = computed(() =>
  reader.set ? heads.value[at.value - page.value * pageSize]?.id : reader.single,
)

const read = useRead(
  () => current.value,
  () => reader.item,
  () => reader.open,
)
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

/** Goes back to Harvest with these records as what is looked at. */
async function fromAbove() {
  const set = reader.meant
  reader.open = false
  await looked.at(set.kind === 'all' ? undefined : looked.inside(set))
  await router.push({ name: 'harvest', params: { review: review.id } })
}

/** What is meant is called so: by its number where it is marked. */
const called = computed(() =>
  reader.marked.size ? t('reader.marked', reader.marked.size) : reader.title,
)

/** Has a few of these records judged. */
function judge() {
  reader.open = false
  judging.judge(reader.meant, called.value)
}

/** Goes to the form of a round that begins from these records. */
async function follow() {
  const of = JSON.stringify(reader.meant)
  reader.open = false
  await router.push({
    name: 'studies',
    params: { review: review.id },
    query: { way: 'both', of, called: called.value },
  })
}

/** Keeps the record that is read on the shelf, or takes it off. */
function keep() {
  if (record.value) shelf.toggle(record.value.id, record.value.title.map((p) => p.text).join(''))
}

/** Marks the record that is read and goes on to the next. */
function mark() {
  if (!reader.set || current.value === undefined) return
  reader.mark(current.value)
  if (reader.marked.has(current.value)) go(1)
}

// Wherever the focus is: keys are pressed as soon as the reader shows.
useEventListener('keydown', (e: KeyboardEvent) => {
  if (!reader.open || saving.open || e.defaultPrevented) return
  const plain =
    !e.ctrlKey &&
    !e.metaKey &&
    !e.altKey &&
    !(e.target as HTMLElement).matches('input:not([type=checkbox]), textarea, select')
  const act = plain ? { k: keep, m: mark }[e.key.toLowerCase()] : undefined
  if (act) {
    e.preventDefault()
    return act()
  }
  const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[
    e.key
  ]
  if (!by || (e.target as HTMLElement).closest('.v-list')) return
  e.preventDefault()
  go(by)
})
</script>

<template>
  <v-dialog v-model="reader.open" :max-width="reader.set ? 1040 : 720" :aria-label="reader.title">
    <v-card class="reader">
      <div class="head">
        <h2 class="display cut">{{ reader.title }}</h2>
        <span v-if="reader.set" class="small">{{
          t('reader.place', { at: n(total ? at + 1 : 0, 'whole'), of: n(total, 'whole') })
        }}</span>
        <span class="grow" />
        <button
          v-if="record"
          class="btn outline"
          :class="{ kept: review.shelf.has(record.id) }"
          :aria-pressed="review.shelf.has(record.id)"
          :title="review.shelf.has(record.id) ? t('shelf.off') : t('shelf.put')"
          @click="keep"
        >
          {{ review.shelf.has(record.id) ? t('shelf.on') : t('shelf.put') }} <kbd>K</kbd>
        </button>
        <button
          class="btn bare"
          @click="
            saving.save(
              reader.set ? reader.meant : { kind: 'picked', ids: [record?.id ?? 0] },
              called,
              reader.marked.size || total,
            )
          "
        >
          {{ t('save.open') }}
        </button>
        <template v-if="reader.set">
          <button v-if="total > 1" class="btn bare" @click="judge">{{ t('judge.few') }}</button>
          <button v-if="total > 1" class="btn bare" @click="fromAbove">
            {{ t('looked.fromAbove') }}
          </button>
          <button class="btn outline" :disabled="at === 0" @click="go(-1)">
            {{ t('reader.previous') }} <kbd>←</kbd>
          </button>
          <button class="btn outline" :disabled="at >= total - 1" @click="go(1)">
            {{ t('reader.next') }} <kbd>→</kbd>
          </button>
        </template>
        <button class="btn bare" @click="reader.open = false">{{ t('reader.close') }}</button>
      </div>
      <div class="body">
        <ReaderList
          v-if="reader.set"
          v-model="at"
          :heads="heads"
          :from="page * pageSize"
          :total="total"
          @follow="follow"
        />
        <RecordText v-if="record" :record="record" />
        <p v-else-if="reader.set && list.data.value && !total" class="small none">
          {{ t('reader.none') }}
        </p>
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

.btn.kept {
  background: var(--gold-soft);
}

.none {
  padding: 20px;
}

@media (max-width: 700px) {
  .body {
    flex-direction: column;
  }
}
</style>
