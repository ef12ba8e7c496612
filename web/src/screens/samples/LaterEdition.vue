<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { figures, useFigure } from '@/figures'
import { useReview } from '@/state/review'
import { useVocabularies } from '@/state/vocabularies'

/**
 * What a later edition of the vocabulary says otherwise, before it is gone by; or, once it is, what this one said otherwise
 * than the one before. What of it touches terms of the review stands first: their mends are offered in Blocks.
 */
const { t, n, d } = useI18n()
const review = useReview()
const open = ref(false)

const { vocabularies } = useVocabularies()
const later = computed(() => vocabularies.value.find((v) => v.id === review.vocabulary?.later))
const shown = computed(() => later.value ?? review.vocabulary)
const since = computed(() => (later.value ? review.vocabulary?.id : review.vocabulary?.earlier))
const asked = useFigure(
  figures.vocabularyChanges,
  () => ({ vocabulary: shown.value?.id ?? 0, since: since.value }),
  { enabled: () => since.value !== undefined && shown.value !== undefined },
)

const terms = computed(
  () =>
    new Set(
      review.document.blocks.flatMap((b) =>
        b.terms.flatMap((x) => (x.heading ? [x.heading.toLowerCase()] : [])),
      ),
    ),
)
const touches = (label: string) => terms.value.has(label.toLowerCase())
interface Line {
  said: string
  touched: boolean
}
const groups = computed(() => {
  const c = asked.data.value
  if (!c) return []
  const list = (labels: string[]) => labels.join(', ') || t('vocabularies.top')
  const all: { title: string; lines: Line[] }[] = [
    {
      title: t('vocabularies.renamed'),
      lines: c.renamed.map((x) => ({
        said: t('vocabularies.to', x),
        touched: touches(x.from) || touches(x.to),
      })),
    },
    {
      title: t('vocabularies.retired'),
      lines: c.retired.map((x) => ({
        said: x.now.length
          ? `${x.label}, ${t('vocabularies.now', { now: x.now.join(', ') })}`
          : x.label,
        touched: touches(x.label),
      })),
    },
    {
      title: t('vocabularies.moved'),
      lines: c.moved.map((x) => ({
        said: `${x.label}, ${t('vocabularies.below', { to: list(x.to), from: list(x.from) })}`,
        touched: touches(x.label) || x.to.some(touches) || x.from.some(touches),
      })),
    },
    {
      title: t('vocabularies.added'),
      lines: c.added.map((said) => ({ said, touched: false })),
    },
    {
      title: t('vocabularies.terms'),
      lines: c.terms.map((x) => ({
        said: `${x.term}: ${t('vocabularies.to', { from: x.from || t('vocabularies.top'), to: x.to || t('vocabularies.top') })}`,
        touched: touches(x.from) || touches(x.to),
      })),
    },
  ]
  return all
    .filter((g) => g.lines.length)
    .map((g) => ({
      ...g,
      lines: [...g.lines].sort((a, b) => Number(b.touched) - Number(a.touched)),
    }))
})
const touched = computed(() =>
  groups.value.reduce((sum, g) => sum + g.lines.filter((l) => l.touched).length, 0),
)
const most = 40

function goBy() {
  const v = later.value
  if (!v) return
  open.value = false
  review.change(
    { key: 'vocabulary', params: { name: v.name } },
    { edits: [{ op: 'vocabulary', vocabulary: v.id }] },
  )
}
</script>

<template>
  <p v-if="since !== undefined && shown" class="row small later">
    <span v-if="later">{{
      t('vocabularies.later', { name: later.name, day: d(later.made, 'day') })
    }}</span>
    <button class="link under" @click="open = true">{{ t('vocabularies.changes') }}</button>
    <button v-if="later" class="btn outline" @click="goBy">{{ t('vocabularies.goBy') }}</button>
  </p>
  <v-dialog
    v-if="shown"
    v-model="open"
    :max-width="640"
    :aria-label="t('vocabularies.changesTitle', { name: shown.name })"
  >
    <v-card class="changes">
      <h2 class="display">{{ t('vocabularies.changesTitle', { name: shown.name }) }}</h2>
      <p v-if="asked.data.value && !groups.length">{{ t('vocabularies.none') }}</p>
      <p v-if="touched" class="touched">{{ t('vocabularies.touched', { n: touched }, touched) }}</p>
      <section v-for="g in groups" :key="g.title" :aria-label="g.title">
        <h3 class="sect">{{ g.title }} {{ n(g.lines.length, 'whole') }}</h3>
        <ul>
          <li v-for="l in g.lines.slice(0, most)" :key="l.said" :class="{ touched: l.touched }">
            {{ l.said }}
          </li>
        </ul>
        <p v-if="g.lines.length > most" class="small">
          {{ t('vocabularies.cut', { n: n(g.lines.length - most, 'whole') }) }}
        </p>
      </section>
      <div class="row">
        <button v-if="later" class="btn" @click="goBy">{{ t('vocabularies.goBy') }}</button>
        <button class="btn outline" @click="open = false">{{ t('reader.close') }}</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.later {
  padding: 2px 8px 6px;
}

.under {
  text-decoration: underline;
}

.changes {
  padding: 18px 20px;
  display: grid;
  gap: 10px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

.touched {
  background: var(--gold-soft);
}

li {
  padding: 2px 4px;
  border-bottom: 1px solid var(--line-soft);
}
</style>
