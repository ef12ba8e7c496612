<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { type HeadingWhole } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useThrough } from './through'
import SampleMark from '@/parts/SampleMark.vue'

/** What stands around a heading: related ones, those beside it, those often with it, and the words of its records. */
/** Words of its records that are ticked, to be taken beside its entry terms. */
const words = defineModel<string[]>('words', { required: true })
const props = defineProps<{ whole: HeadingWhole }>()
const emit = defineEmits<{ look: [label: string]; lookIn: [vocabulary: number, label: string] }>()
const { t, n } = useI18n()
const through = useThrough()

const item = useFigure(
  figures.item,
  () => ({
    facet: 'headings' as const,
    item: props.whole.heading,
    look: through.look?.name || undefined,
  }),
  { enabled: () => props.whole.counted && props.whole.alone.records > 0 },
)
function toggle(word: string) {
  words.value = words.value.includes(word)
    ? words.value.filter((w) => w !== word)
    : [...words.value, word]
}
/** What is stated by addresses, where it is told by none of the vocabularies that are here. */
const unmatched = computed(() =>
  props.whole.matches.some((m) => m.via.endsWith('Match'))
    ? []
    : [...props.whole.exactMatch, ...props.whole.closeMatch],
)
const groups = computed(() =>
  [
    {
      title: t('headings.related'),
      rows: props.whole.related.map((x) => ({ label: x.label, n: x.withNarrower })),
    },
    {
      title: t('headings.beside'),
      rows: props.whole.beside.map((x) => ({ label: x.label, n: x.withNarrower })),
    },
    {
      title: t('headings.together'),
      rows: props.whole.together.map((x) => ({ label: x.heading, n: x.records })),
    },
  ].filter((g) => g.rows.length),
)
</script>

<template>
  <div class="around">
    <section v-for="g in groups" :key="g.title" :aria-label="g.title">
      <h3 class="sect">{{ g.title }}<SampleMark /></h3>
      <p>
        <button v-for="r in g.rows" :key="r.label" class="chip" @click="emit('look', r.label)">
          {{ r.label }}<em v-if="whole.counted">{{ n(r.n, 'whole') }}</em>
        </button>
      </p>
    </section>
    <section v-if="item.data.value?.with.length" :aria-label="t('headings.with')">
      <h3 class="sect">{{ t('headings.with') }}<SampleMark /></h3>
      <p>
        <button
          v-for="w in item.data.value.with"
          :key="w.item"
          class="chip mono"
          :class="{ on: words.includes(w.item) }"
          :aria-pressed="words.includes(w.item)"
          @click="toggle(w.item)"
        >
          {{ w.item }}<em>{{ n(w.records, 'whole') }}</em>
        </button>
      </p>
    </section>
    <section v-if="whole.matches.length" :aria-label="t('through.matches')">
      <h3 class="sect">{{ t('through.matches') }}</h3>
      <p>
        <button
          v-for="m in whole.matches"
          :key="`${m.vocabulary} ${m.heading}`"
          class="chip"
          :title="t(`carry.via.${m.via}`, { matched: m.matched ?? '' })"
          @click="emit('lookIn', m.vocabulary, m.heading)"
        >
          {{ m.heading }}<em>{{ m.name }}</em>
        </button>
      </p>
    </section>
    <p v-if="unmatched.length" class="small cut">
      {{ t('headings.others') }}: {{ unmatched.join(', ') }}
    </p>
  </div>
</template>

<style scoped>
.around {
  display: grid;
  gap: 8px;
  margin-top: 8px;
}

p {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin-top: 3px;
}

.chip {
  padding: 2px 8px;
}

.chip.on {
  border-color: var(--plum);
  background: var(--plum-soft);
}
</style>
