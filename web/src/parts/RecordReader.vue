<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { useRouter } from 'vue-router'
import { useLooked } from '@/state/looked'
import { useReview } from '@/state/review'
import { useShelf } from '@/state/shelf'
import { useSaving } from './files/saving'
import { useJudging } from './judging'
import { useRead } from './read'
import { useReader } from './reader'
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

const list = useQuery({
  queryKey: computed(() => [
    'records',
    review.id,
    review.revision,
    review.lookStamp,
    reader.set,
    page.value,
  ]),
  queryFn: () =>
    ask(
      api.POST('/api/reviews/{review}/records', {
        params: review.asked,
        body: { of: reader.set ?? { kind: 'all' }, at: page.value * pageSize, limit: pageSize },
      }),
    ),
  enabled: () => reader.open && reader.set !== undefined,
  placeholderData: keepPreviousData,
})
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
  const set = reader.set
  reader.open = false
  if (!set) return
  await looked.at(set.kind === 'all' ? undefined : looked.inside(set))
  await router.push({ name: 'harvest', params: { review: review.id } })
}

/** Has a few of these records judged. */
function judge() {
  if (!reader.set) return
  reader.open = false
  judging.judge(reader.set, reader.title)
}

/** Keeps the record that is read on the shelf, or takes it off. */
function keep() {
  if (record.value) shelf.toggle(record.value.id, record.value.title.map((p) => p.text).join(''))
}

// Wherever the focus is: keys are pressed as soon as the reader shows.
useEventListener('keydown', (e: KeyboardEvent) => {
  if (!reader.open || saving.open || e.defaultPrevented) return
  if (
    e.key.toLowerCase() === 'k' &&
    !e.ctrlKey &&
    !e.metaKey &&
    !e.altKey &&
    !(e.target as HTMLElement).matches('input, textarea, select')
  ) {
    e.preventDefault()
    return keep()
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
              reader.set ?? { kind: 'picked', ids: [record?.id ?? 0] },
              reader.title,
              total,
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
        <ol v-if="reader.set" class="list" tabindex="0" :aria-label="t('reader.list')">
          <li v-for="(r, i) in heads" :key="r.id">
            <button
              :class="{ here: page * pageSize + i === at }"
              :aria-current="page * pageSize + i === at"
              @click="at = page * pageSize + i"
            >
              <span class="title">{{ r.title || t('record.noTitle') }}</span>
              <span class="small"
                >{{ [r.byline, r.year || undefined].filter(Boolean).join(' ')
                }}<template v-if="r.key"> · {{ t('record.key') }}</template
                ><template v-if="!r.indexed"> · {{ t('record.unindexed') }}</template
                ><b v-if="review.shelf.has(r.id)"> · {{ t('shelf.on') }}</b></span
              >
            </button>
          </li>
          <li v-if="total > (page + 1) * pageSize" class="more">
            <button class="btn bare" @click="at = (page + 1) * pageSize">
              {{ t('reader.more', { n: n(total - (page + 1) * pageSize, 'whole') }) }}
            </button>
          </li>
        </ol>
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

  .list {
    width: auto;
    max-height: 34%;
    border-right: 0;
    border-bottom: 1px solid var(--line);
  }
}
</style>
