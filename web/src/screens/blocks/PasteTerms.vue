<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Block } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useRefusal } from '@/parts/tried'
import { useBench } from '@/state/bench'
import { useDecide } from '@/state/decide'
import { useProblem } from '@/state/problem'
import { newTerm, useReview } from '@/state/review'

/** Words that were pasted, one a line or parted by OR: what each finds is seen before they become terms. */
const props = defineProps<{ block: Block; typed: string[]; field: string }>()
const emit = defineEmits<{ close: [] }>()
const { t, n } = useI18n()
const review = useReview()
const bench = useBench()
const problem = useProblem()
const refusal = useRefusal()
const { add, addEdits } = useDecide()

const most = 500
const shown = computed(() => props.typed.slice(0, most))
const asked = useFigure(figures.termList, () => ({
  typed: shown.value,
  field: props.field,
  block: props.block.id,
}))
const rows = computed(() => asked.data.value ?? [])
const ticked = ref(new Set<number>())
watch(
  rows,
  (all) =>
    (ticked.value = new Set(
      all.flatMap((r, i) => (r.term && !r.there && r.records !== 0 ? [i] : [])),
    )),
  { immediate: true },
)
function tick(i: number, on: boolean) {
  const next = new Set(ticked.value)
  if (on) next.add(i)
  else next.delete(i)
  ticked.value = next
}
const terms = computed(() =>
  rows.value.flatMap((r, i) =>
    ticked.value.has(i) && r.term ? [newTerm({ ...r.term, id: '' })] : [],
  ),
)
watch(terms, (all) =>
  bench.rest(
    all.length
      ? {
          edits: all.flatMap((term) => addEdits(props.block, term)),
          label: t('paste.terms', { n: all.length }, all.length),
          block: props.block.id,
        }
      : undefined,
  ),
)

function close() {
  bench.rest(undefined)
  emit('close')
}

function take() {
  add(props.block, terms.value)
  close()
}
</script>

<template>
  <section class="card" :aria-label="t('paste.title', { block: block.name })">
    <div class="row">
      <h3 class="sect">{{ t('paste.title', { block: block.name }) }}</h3>
      <span class="grow" />
      <button class="btn bare" @click="close">{{ t('act.cancel') }}</button>
      <button class="btn" :disabled="!terms.length" @click="take">
        {{ t('paste.take', { n: terms.length, block: block.name }, terms.length) }}
      </button>
    </div>
    <p v-if="typed.length > most" class="wrong">
      {{ t('paste.cut', { n: n(typed.length, 'whole'), most }) }}
    </p>
    <p v-if="asked.error.value" class="wrong" role="alert">{{ problem(asked.error.value) }}</p>
    <div v-else class="list">
      <table class="figures">
        <thead>
          <tr>
            <th class="left">
              <span class="visually-hidden">{{ t('paste.tick') }}</span>
            </th>
            <th class="left">{{ t('blocks.term') }}</th>
            <th>{{ t('figure.records') }}</th>
            <th>{{ t('paste.adds') }}</th>
            <th v-if="review.keyStudies.length">{{ t('figure.termKeys') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(r, i) in rows" :key="i" :class="{ off: !ticked.has(i) }">
            <td class="left">
              <input
                :id="`paste-${i}`"
                type="checkbox"
                :checked="ticked.has(i)"
                :disabled="!r.term || r.there"
                @change="tick(i, ($event.target as HTMLInputElement).checked)"
              />
            </td>
            <td class="left">
              <label class="mono" :for="`paste-${i}`">{{ r.typed }}</label>
              <span v-if="r.refused" class="wrong small">{{ refusal(r.refused) }}</span>
              <span v-else-if="r.there" class="small">{{ t('paste.there') }}</span>
            </td>
            <td>{{ r.records === undefined ? '' : n(r.records, 'whole') }}</td>
            <td>{{ r.adds === undefined ? '' : `+${n(r.adds, 'whole')}` }}</td>
            <td v-if="review.keyStudies.length">{{ r.term ? r.keys : '' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.card {
  margin-top: 10px;
  padding: 10px 13px 12px;
}

.list {
  max-height: 320px;
  overflow-y: auto;
  margin-top: 6px;
}

.off label {
  color: var(--ink-3);
}

td.left:first-child {
  width: 30px;
}

.wrong {
  color: var(--miss);
}
</style>
