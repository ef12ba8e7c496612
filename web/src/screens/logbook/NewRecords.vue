<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Since } from '@/api/client'
import { useReader } from '@/parts/reader'
import { figures } from '@/figures'
import { useAct } from '@/state/act'
import { useNotes } from '@/state/notes'
import { useReview } from '@/state/review'
import { useShelf } from '@/state/shelf'

/** What is new, the likeliest first: opened, made a key study, put on the shelf, or dismissed. */
const props = defineProps<{ since: Since }>()
const { t, n } = useI18n()
const review = useReview()
const reader = useReader()
const notes = useNotes()
const shelf = useShelf()

const several = 50
const all = ref(false)
const shown = computed(() => props.since.records.slice(0, all.value ? undefined : several))
const path = () => ({ params: { path: { review: review.id } } })

const act = useAct(figures.since, figures.holdings)
const take = (id: number) =>
  act(
    review.act(() =>
      ask(
        api.POST('/api/reviews/{review}/key-studies', {
          ...path(),
          body: { records: [id], way: 'new' },
        }),
      ),
    ),
  )
async function dismiss(id: number, title: string, back = false) {
  const done = await act(
    ask(
      api.POST('/api/reviews/{review}/dismissed', {
        params: { ...path().params, query: { back } },
        body: { records: [id] },
      }),
    ),
  )
  if (done && !back)
    notes.say({
      text: t('again.dismissed', { title }),
      action: { label: t('steps.undo'), run: () => dismiss(id, title, true) },
    })
}
const isKey = (id: number) => review.keyStudies.some((k) => k.record === id)
</script>

<template>
  <section :aria-label="t('again.records')">
    <h2 class="sect">{{ t('again.records') }}</h2>
    <p v-if="!since.records.length" class="small">{{ t('again.none') }}</p>
    <template v-else>
      <p class="small">
        <template v-if="since.right">{{
          t(since.right.assumed ? 'again.rightAssumed' : 'again.right', {
            share: n(since.right.share, 'share'),
            low: n(since.right.low, 'share'),
            high: n(since.right.high, 'share'),
            belong: since.right.belong,
            aside: since.right.aside,
          })
        }}</template>
        <template v-else>{{ t('again.unjudged') }}</template>
      </p>
      <ol>
        <li v-for="r in shown" :key="r.record.id" :class="{ likely: r.likely }">
          <span class="mark" :title="t(r.likely ? 'again.likely' : 'again.unlikely')"
            ><span class="visually-hidden">{{
              t(r.likely ? 'again.likely' : 'again.unlikely')
            }}</span></span
          >
          <div>
            <button class="link title" @click="reader.one(r.record.id, r.record.title)">
              {{ r.record.title }}
            </button>
            <p class="small">
              {{
                [r.record.byline, r.record.journal, r.record.year || ''].filter(Boolean).join(', ')
              }},
              {{ r.from }}
            </p>
          </div>
          <span v-if="isKey(r.record.id)" class="small">{{ t('again.isKey') }}</span>
          <button v-else class="btn bare" @click="take(r.record.id)">{{ t('again.key') }}</button>
          <span v-if="review.shelf.has(r.record.id)" class="small">{{ t('again.onShelf') }}</span>
          <button v-else class="btn bare" @click="shelf.toggle(r.record.id, r.record.title)">
            {{ t('again.shelf') }}
          </button>
          <button class="btn bare" @click="dismiss(r.record.id, r.record.title)">
            {{ t('again.dismiss') }}
          </button>
        </li>
      </ol>
      <button v-if="since.records.length > shown.length" class="btn bare" @click="all = true">
        {{ t('again.all', { n: n(since.records.length, 'whole') }) }}
      </button>
      <p v-if="since.more" class="small">{{ t('again.more', { n: n(since.more, 'whole') }) }}</p>
    </template>
  </section>
</template>

<style scoped>
.sect {
  margin: 18px 0 4px;
}

li {
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr) auto auto auto;
  gap: 8px;
  align-items: start;
  padding: 6px 0;
  border-bottom: 1px solid var(--line-soft);
}

.mark {
  width: 9px;
  height: 9px;
  margin-top: 5px;
  border: 1.5px solid var(--ink-3);
  border-radius: 50%;
}

.likely .mark {
  border-color: var(--gold);
  background: var(--gold);
}

.title {
  text-align: left;
}

.likely .title {
  font-weight: 650;
}
</style>
