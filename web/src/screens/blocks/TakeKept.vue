<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useKept } from '@/state/kept'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { termText } from '@/state/review'
import { useSteps } from '@/state/steps'

/** The blocks that were kept for reuse: what they are, what they were tested on, and a copy of one for this review. */
const emit = defineEmits<{ taken: [block: string]; close: [] }>()
const { t, n, d } = useI18n()
const kept = useKept()
const notes = useNotes()
const problem = useProblem()
const steps = useSteps()

function take(k: (typeof kept.newest.value)[number]) {
  emit('taken', kept.take(k))
  notes.say({
    text: t('kept.taken', { name: k.name }),
    action: { label: t('steps.undo'), run: steps.undo },
  })
}
async function forget(name: string, back = false) {
  try {
    await kept.forget(name, back)
    if (!back)
      notes.say({
        text: t('kept.forgot', { name }),
        action: { label: t('steps.undo'), run: () => forget(name, true) },
      })
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
}
</script>

<template>
  <section class="card" :aria-label="t('kept.all')">
    <div class="row">
      <h2 class="sect grow">{{ t('kept.all') }}</h2>
      <button class="btn bare" @click="emit('close')">{{ t('kept.close') }}</button>
    </div>
    <p v-if="!kept.newest.value.length" class="small">{{ t('kept.none') }}</p>
    <ul>
      <li v-for="k in kept.newest.value" :key="k.name">
        <div>
          <b>{{ k.name }}</b>
          <span class="small">
            {{
              t('kept.of', {
                version: k.version,
                review: k.from,
                day: d(k.at, 'day'),
                lines: t(
                  'kept.lines',
                  { n: n(k.block.terms.length, 'whole') },
                  k.block.terms.length,
                ),
              })
            }}</span
          >
          <p v-if="k.note" class="small">{{ k.note }}</p>
          <p class="small">{{ k.tested }}</p>
          <p class="mono terms">{{ k.block.terms.slice(0, 12).map(termText).join(', ') }}</p>
        </div>
        <button class="btn outline" @click="take(k)">{{ t('kept.take') }}</button>
        <button
          class="btn bare"
          :aria-label="t('kept.forget', { name: k.name })"
          @click="forget(k.name)"
        >
          ×
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.card {
  padding: 12px;
  margin-bottom: 10px;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 10px;
  align-items: start;
  padding: 8px 0;
  border-top: 1px solid var(--line-soft);
}

.terms {
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
