<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { useTitle } from '@vueuse/core'
import { nextTick, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { api, ask, type ReviewHead } from '@/api/client'
import { figures, useFigure, useFresh } from '@/figures'
import EmptyState from '@/parts/EmptyState.vue'
import TamizMark from '@/parts/TamizMark.vue'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'

const { t, n, d } = useI18n()
const router = useRouter()
const notes = useNotes()
const problem = useProblem()
const fresh = useFresh()
useTitle(() => `${t('reviews.title')} · Tamiz`)

const reviews = useFigure(figures.reviews, () => null, {
  holds: 0,
  again: (q) => (q.state.status === 'error' ? 5000 : false),
})
const again = () => fresh(figures.reviews)
const wrong = (error: unknown) => notes.say({ text: problem(error), wrong: true })

const once = useOnce()
const name = ref('')
const create = useMutation({
  mutationFn: (name: string) =>
    once((headers) => ask(api.POST('/api/reviews', { headers, body: { name } })), name),
  onSuccess: (r) => router.push({ name: 'question', params: { review: r.id } }),
  onError: wrong,
})
const patch = useMutation({
  mutationFn: (p: { id: number; name?: string; deleted?: boolean }) =>
    ask(
      api.PATCH('/api/reviews/{review}', {
        params: { path: { review: p.id } },
        body: { name: p.name, deleted: p.deleted },
      }),
    ),
  onSettled: again,
  onError: wrong,
})

function begin() {
  if (name.value.trim()) create.mutate(name.value)
}

const renaming = ref<number>()
const newName = ref('')
async function rename(r: ReviewHead) {
  renaming.value = r.id
  newName.value = r.name
  await nextTick()
  const field = document.querySelector<HTMLInputElement>('.rename')
  field?.select()
}

function renamed(r: ReviewHead) {
  if (renaming.value !== r.id) return
  renaming.value = undefined
  if (newName.value.trim() && newName.value !== r.name)
    patch.mutate({ id: r.id, name: newName.value })
}

async function remove(r: ReviewHead) {
  await patch.mutateAsync({ id: r.id, deleted: true })
  notes.say({
    text: t('reviews.deleted', { name: r.name }),
    action: { label: t('steps.undo'), run: () => patch.mutate({ id: r.id, deleted: false }) },
  })
}
</script>

<template>
  <main class="reviews">
    <header>
      <TamizMark />
      <div>
        <h1 class="display">Tamiz</h1>
        <p class="small">{{ t('reviews.motto') }}</p>
      </div>
    </header>
    <section>
      <h2 class="sect">{{ t('reviews.title') }}</h2>
      <ul v-if="reviews.data.value?.length" class="card">
        <li v-for="r in reviews.data.value" :key="r.id">
          <input
            v-if="renaming === r.id"
            v-model="newName"
            class="field rename"
            :aria-label="t('reviews.name')"
            maxlength="200"
            @keydown.enter="renamed(r)"
            @keydown.esc="renaming = undefined"
            @blur="renamed(r)"
          />
          <router-link
            v-else
            class="name display"
            :to="{ name: 'question', params: { review: r.id } }"
            >{{ r.name }}</router-link
          >
          <span class="small what">{{
            t('reviews.holds', {
              samples: t('count.samples', { n: n(r.samples, 'whole') }, r.samples),
              keys: t('count.keys', { n: n(r.keyStudies, 'whole') }, r.keyStudies),
            })
          }}</span>
          <span class="small when">{{ d(r.touched, 'day') }}</span>
          <button
            class="btn bare"
            :aria-label="t('reviews.renameOne', { name: r.name })"
            @click="rename(r)"
          >
            {{ t('act.rename') }}
          </button>
          <button
            class="btn bare"
            :aria-label="t('reviews.deleteOne', { name: r.name })"
            @click="remove(r)"
          >
            {{ t('act.delete') }}
          </button>
        </li>
      </ul>
      <EmptyState
        v-else-if="reviews.data.value"
        :title="t('reviews.emptyTitle')"
        :text="t('reviews.emptyText')"
      />
      <p v-else-if="reviews.failureReason.value" class="small" role="alert">
        {{ t('saved.again', { why: problem(reviews.failureReason.value) }) }}
      </p>
      <p v-else class="small" role="status">{{ t('reviews.reading') }}</p>
      <form class="new" @submit.prevent="begin">
        <label class="visually-hidden" for="new-review">{{ t('reviews.newName') }}</label>
        <input
          id="new-review"
          v-model="name"
          class="field"
          :placeholder="t('reviews.newPlaceholder')"
          maxlength="200"
        />
        <button class="btn" :disabled="!name.trim() || create.isPending.value">
          {{ t('reviews.begin') }}
        </button>
      </form>
    </section>
  </main>
</template>

<style scoped>
.reviews {
  height: 100vh;
  overflow-y: auto;
  padding: 56px 24px;
  max-width: 900px;
  width: 100%;
  margin: 0 auto;
}

header {
  display: flex;
  gap: 14px;
  align-items: center;
  margin-bottom: 34px;
}

h1 {
  font-size: 30px;
  font-weight: 600;
  line-height: 1.1;
}

.card {
  margin-top: 8px;
}

li {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 10px 14px;
  border-bottom: 1px solid var(--line-soft);
}

li:last-child {
  border-bottom: 0;
}

.name {
  flex: 1;
  min-width: 0;
  font-size: 16px;
  font-weight: 600;
  color: var(--ink);
  text-decoration: none;
  overflow-wrap: anywhere;
}

.name:hover {
  color: var(--plum);
  text-decoration: underline;
}

.rename {
  flex: 1;
}

.what,
.when {
  white-space: nowrap;
}

.new {
  display: flex;
  gap: 8px;
  margin-top: 14px;
  max-width: 560px;
}

@media (max-width: 700px) {
  li {
    flex-wrap: wrap;
  }

  .name {
    flex-basis: 100%;
  }
}
</style>
