<script setup lang="ts">
import { useVirtualList } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { type ShelfEntry } from '@/api/client'
import { figures, useFigure } from '@/figures'
import EmptyState from '@/parts/EmptyState.vue'
import { useSaving } from '@/parts/files/saving'
import { useReview } from '@/state/review'
import { tagsOf, useShelf } from '@/state/shelf'
import ShelfRow from './ShelfRow.vue'

/** The records that are kept: found again by words, notes and tags, and taken out in any format. */
const { t, n } = useI18n()
const review = useReview()
const saving = useSaving()
const shelf = useShelf()

const list = useFigure(figures.shelf, () => null, { keep: true })
/** What was noted just now, until the list that holds it has come. */
const noted = ref<Record<number, Partial<ShelfEntry>>>({})
watch(list.dataUpdatedAt, () => {
  if (!review.queue.length && !list.isPlaceholderData.value) noted.value = {}
})
const entries = computed(() =>
  (list.data.value ?? [])
    .filter((e) => review.shelf.has(e.id))
    .map((e) => ({ ...e, ...noted.value[e.id] })),
)

function note(e: ShelfEntry, text: string) {
  noted.value[e.id] = { ...noted.value[e.id], note: text }
  shelf.note(e.id, e.title, text)
}

function tagAs(e: ShelfEntry, text: string) {
  const tags = tagsOf(text)
  noted.value[e.id] = { ...noted.value[e.id], tags }
  shelf.tag(e.id, e.title, tags)
}

const words = ref('')
const tag = ref('')
const tags = computed(() => {
  const count = new Map<string, number>()
  for (const e of entries.value) for (const x of e.tags) count.set(x, (count.get(x) ?? 0) + 1)
  return [...count].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]))
})
watch(tags, (all) => {
  if (tag.value && !all.some(([x]) => x === tag.value)) tag.value = ''
})
const text = (e: ShelfEntry) =>
  [e.title, e.byline, e.journal, e.year, e.note, ...e.tags].join(' ').toLowerCase()
const shown = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return entries.value.filter(
    (e) => (!tag.value || e.tags.includes(tag.value)) && wanted.every((w) => text(e).includes(w)),
  )
})

const chosen = ref(new Set<number>())
const picked = computed(() => shown.value.filter((e) => chosen.value.has(e.id)))
/** What is saved or taken off: what is chosen, else all that is shown. */
const meant = computed(() => (picked.value.length ? picked.value : shown.value))
const allChosen = computed(
  () => shown.value.length > 0 && picked.value.length === shown.value.length,
)

function choose(id: number, on: boolean) {
  const next = new Set(chosen.value)
  if (on) next.add(id)
  else next.delete(id)
  chosen.value = next
}

function chooseAll(on: boolean) {
  chosen.value = new Set(on ? shown.value.map((e) => e.id) : [])
}

function save() {
  const whole = meant.value.length === entries.value.length
  saving.save(
    whole ? { kind: 'shelf' } : { kind: 'picked', ids: meant.value.map((e) => e.id) },
    tag.value || t('screen.shelf'),
    meant.value.length,
  )
}

function takeOff() {
  shelf.takeOff(picked.value)
  chosen.value = new Set()
}

const {
  list: rows,
  containerProps,
  wrapperProps,
} = useVirtualList(shown, { itemHeight: 62, overscan: 12 })
</script>

<template>
  <div class="screen">
    <EmptyState
      v-if="list.data.value && !entries.length"
      :title="t('shelf.emptyTitle')"
      :text="t('shelf.emptyText')"
    >
      <router-link class="btn" :to="{ name: 'samples', params: { review: review.id } }">{{
        t('screen.samples')
      }}</router-link>
    </EmptyState>
    <template v-else>
      <div class="row head">
        <h2 class="display">{{ t('shelf.title') }}</h2>
        <span class="small">{{ t('shelf.text') }}</span>
      </div>
      <div class="row tools">
        <label
          ><input
            type="checkbox"
            :checked="allChosen"
            :aria-label="t('shelf.chooseAll')"
            @change="chooseAll(($event.target as HTMLInputElement).checked)"
        /></label>
        <input
          v-model="words"
          class="field filter"
          type="search"
          :placeholder="t('shelf.filter')"
          :aria-label="t('shelf.filter')"
        />
        <span v-if="tags.length" class="tags" role="group" :aria-label="t('shelf.tags')">
          <button class="chip" :class="{ on: !tag }" :aria-pressed="!tag" @click="tag = ''">
            {{ t('shelf.all') }}
          </button>
          <button
            v-for="[x, k] in tags.slice(0, 12)"
            :key="x"
            class="chip"
            :class="{ on: tag === x }"
            :aria-pressed="tag === x"
            @click="tag = tag === x ? '' : x"
          >
            {{ x }} <em>{{ n(k, 'whole') }}</em>
          </button>
        </span>
        <span class="grow" />
        <span class="small" role="status">{{
          picked.length
            ? t('shelf.chosen', { n: n(picked.length, 'whole') })
            : t('shelf.count', { n: n(shown.length, 'whole') }, shown.length)
        }}</span>
        <button v-if="picked.length" class="btn outline" @click="takeOff">
          {{ t('shelf.take') }}
        </button>
        <button class="btn" :disabled="!meant.length" @click="save">
          {{ t('shelf.save', { n: n(meant.length, 'whole') }) }}
        </button>
      </div>
      <div class="cols small" aria-hidden="true">
        <span>{{ t('shelf.record') }}</span><span>{{ t('shelf.noted') }}</span>
      </div>
      <div
        v-bind="containerProps"
        class="list"
        tabindex="0"
        role="region"
        :aria-label="t('shelf.title')"
      >
        <ul v-bind="wrapperProps">
          <ShelfRow
            v-for="{ data: e } in rows"
            :key="e.id"
            :entry="e"
            :chosen="chosen.has(e.id)"
            @choose="choose(e.id, $event)"
            @note="note(e, $event)"
            @tag="tagAs(e, $event)"
          />
        </ul>
        <p v-if="entries.length && !shown.length" class="small none">{{ t('shelf.none') }}</p>
      </div>
    </template>
  </div>
</template>

<style scoped>
.screen {
  height: 100%;
  display: flex;
  flex-direction: column;
  min-height: 0;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

.tools {
  margin: 10px 0 6px;
  padding-left: 8px;
  flex-wrap: wrap;
  gap: 8px 10px;
}

.filter {
  width: 240px;
}

.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}

.tags .chip.on {
  background: var(--plum-soft);
  border-color: var(--plum);
}

.cols {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
  padding: 4px 110px 4px 34px;
  gap: 14px;
  border-bottom: 1px solid var(--line);
  font-weight: 600;
}

.list {
  flex: 1;
  min-height: 0;
}

.none {
  padding: 16px 8px;
}
</style>
