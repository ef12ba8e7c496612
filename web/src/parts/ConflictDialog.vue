<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { touched } from '@/state/ops'
import { termText, useReview } from '@/state/review'

/** Two windows changed the same thing: what each made of it, side by side, and a clear choice. */
const { t, te } = useI18n()
const review = useReview()

const sides = computed(() => {
  const c = review.conflict
  if (!c) return []
  const ids = touched(c.waiting.ops)
  const theirs = review.saved?.document
  const parts = c.blocks.split(', ')
  const others = (doc?: typeof c.mine) => [
    ...(parts.includes('question') ? [doc?.question ?? ''] : []),
    ...(parts.includes('frame') ? [doc?.frame ?? ''] : []),
    ...(parts.includes('limits') ? (doc?.limits ?? []).map((l) => [l.kind, l.from, l.to, ...(l.values ?? [])].filter((x) => x !== undefined && x !== null).join(' ')) : []),
    ...(doc?.handSearch ?? []).filter((h) => parts.includes(h.name)).map((h) => `${h.name}: ${h.note}`),
  ]
  const lines = (doc?: typeof c.mine) => [
    ...(doc?.blocks ?? []).filter((b) => ids.includes(b.id)).flatMap((b) => b.terms.map((x) => ({ id: x.id, text: termText(x), on: x.on }))),
    ...others(doc).map((text) => ({ id: text, text, on: true })),
  ]
  const mine = lines(c.mine)
  const other = lines(theirs)
  return [
    { key: 'mine', lines: mine.map((l) => ({ ...l, own: !other.some((o) => o.id === l.id) })) },
    { key: 'theirs', lines: other.map((l) => ({ ...l, own: !mine.some((o) => o.id === l.id) })) },
  ]
})
/** What both changed, in words: a letter is that of a block, another name that of a journal. */
const parts = computed(() =>
  (review.conflict?.blocks.split(', ') ?? []).map((p) => (te(`conflict.part.${p}`) ? t(`conflict.part.${p}`) : p.length < 4 ? t('conflict.block', { name: p }) : p)).join(', '),
)
/** Of terms both can be kept; of a sentence only one. */
const both = computed(() => touched(review.conflict?.waiting.ops ?? []).length > 0)
</script>

<template>
  <v-dialog :model-value="!!review.conflict" persistent :max-width="640" :aria-label="t('conflict.title')">
    <v-card v-if="review.conflict" class="conflict">
      <h2 class="display">{{ t('conflict.title') }}</h2>
      <p>{{ t('conflict.text', { parts }) }}</p>
      <div class="sides">
        <section v-for="side in sides" :key="side.key">
          <h3 class="sect">{{ t(`conflict.${side.key}`) }}</h3>
          <ul>
            <li v-for="l in side.lines" :key="l.id" class="mono" :class="{ own: l.own, off: !l.on }">{{ l.text }}</li>
          </ul>
        </section>
      </div>
      <div class="acts">
        <button v-if="both" class="btn" @click="review.settle('both')">{{ t('conflict.both') }}</button>
        <button class="btn outline" @click="review.settle('mine')">{{ t('conflict.takeMine') }}</button>
        <button class="btn outline" @click="review.settle('theirs')">{{ t('conflict.takeTheirs') }}</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.conflict {
  padding: 18px 20px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

p {
  margin-top: 6px;
}

.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  margin: 14px 0;
}

ul {
  max-height: 260px;
  overflow-y: auto;
  margin-top: 6px;
}

li {
  padding: 3px 6px;
  overflow-wrap: anywhere;
}

li.own {
  background: var(--gold-soft);
  border-radius: 3px;
}

li.off {
  text-decoration: line-through;
}

.acts {
  display: flex;
  gap: 8px;
}
</style>
