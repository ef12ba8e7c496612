<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Block } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useDecide } from '@/state/decide'
import { newTerm } from '@/state/review'
import { useSources } from '@/state/sources'
import { labelKey } from '@/state/labelKey'

/** The words around what is typed, in the source's own index: misspellings show by their tiny counts, and any can be ticked in. */
const props = defineProps<{ block: Block; word: string }>()
const emit = defineEmits<{ added: [] }>()
const { t, n } = useI18n()
const sources = useSources()
const { add } = useDecide()

// The list is one of single words: the last of a phrase is looked up, less its sign.
const looked = computed(() => /([\p{L}\p{N}-]+)[*?]?$/u.exec(props.word.trim())?.[1] ?? '')
const around = useFigure(
  figures.neighbours,
  () => ({ source: sources.chosen?.id ?? 0, word: looked.value }),
  { enabled: () => !!sources.chosen?.map.scan && looked.value.length > 2, once: true },
)
// Two words may be written as one: that form is looked up beside them.
const joined = computed(() => {
  const words = props.word.trim().toLowerCase().replace(/[*?]$/, '').split(/\s+/)
  return words.length === 2 && words.every((w) => /^[\p{L}\p{N}]+$/u.test(w)) ? words.join('') : ''
})
const asOne = useFigure(
  figures.neighbours,
  () => ({ source: sources.chosen?.id ?? 0, word: joined.value }),
  { enabled: () => !!sources.chosen?.map.scan && joined.value.length > 4, once: true },
)
const together = computed(() =>
  joined.value.length > 4
    ? (asOne.data.value ?? []).filter((w) => w.term.startsWith(joined.value.slice(0, -1)))
    : [],
)
const ticked = ref<string[]>([])
watch([looked, joined], () => (ticked.value = []))
const words = computed(() => [
  ...together.value,
  ...(looked.value.length > 2 ? (around.data.value ?? []) : []).filter(
    (w) => !together.value.some((x) => x.term === w.term),
  ),
])
const most = computed(() => Math.max(1, ...words.value.map((w) => w.records)))
const stem = computed(() =>
  looked.value.toLowerCase().slice(0, Math.max(4, looked.value.length - 3)),
)
/** A word that is nearly what is typed and rare beside it may be a misspelling of it. */
const rare = (w: { term: string; records: number }) =>
  w.term.startsWith(stem.value) && w.records * 40 < most.value

function take() {
  add(
    props.block,
    ticked.value.map((text) => newTerm({ kind: 'text', text, field: 'text' })),
  )
  ticked.value = []
  emit('added')
}
</script>

<template>
  <section
    v-if="sources.chosen && words.length"
    class="around"
    :aria-label="t('scan.title', { source: sources.chosen.name })"
  >
    <h3 class="small">{{ t('scan.title', { source: sources.chosen.name }) }}</h3>
    <ul>
      <li
        v-for="w in words"
        :key="w.term"
        :class="{
          here: labelKey(w.term) === labelKey(looked),
          like: w.term.startsWith(stem) || together.includes(w),
          joined: together.includes(w),
        }"
      >
        <label
          :title="together.includes(w) ? t('scan.joined') : rare(w) ? t('scan.rare') : undefined"
        >
          <input
            v-model="ticked"
            type="checkbox"
            :value="w.term"
            :aria-label="t('scan.take', { term: w.term, block: block.name })"
          /><span class="mono">{{ w.term }}</span>
          <em :class="{ rare: rare(w) }">{{ n(w.records, 'whole') }}</em>
        </label>
      </li>
    </ul>
    <button v-if="ticked.length" type="button" class="btn" @click="take">
      {{ t('scan.add', { n: ticked.length }, ticked.length) }}
    </button>
  </section>
</template>

<style scoped>
.around {
  margin-top: 6px;
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  margin: 3px 0 6px;
}

label {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  cursor: pointer;
  color: var(--ink-2);
}

.like label {
  color: var(--ink);
}

/* Written as one word. */
.joined label {
  background: var(--gold-soft);
  border-radius: 4px;
  padding: 0 5px;
}

.here .mono {
  font-weight: 700;
}

em {
  font-size: 12px;
  font-style: normal;
  color: var(--ink-2);
}

em.rare {
  color: var(--miss);
}

input {
  accent-color: var(--plum);
  margin: 0;
}
</style>
