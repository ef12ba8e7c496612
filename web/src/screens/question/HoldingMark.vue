<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Holding, type KeyStudy, type Source } from '@/api/client'
import { figures } from '@/figures'
import { useReader } from '@/parts/reader'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** Whether a source holds a key study; something like it is shown to be decided on, never taken for it. */
const props = defineProps<{ study: KeyStudy; source: Source; holding?: Holding }>()
const { t, d } = useI18n()
const review = useReview()
const sources = useSources()
const reader = useReader()
const notes = useNotes()
const problem = useProblem()

const state = computed(() => props.holding?.state ?? 'unknown')
const indexes = computed(() => !!props.source.map.indexes.heading)
/** It is held, but the source has not indexed it. */
const bare = computed(
  () => state.value === 'held' && indexes.value && props.holding?.headings === 0,
)
const said = computed(() =>
  t('holding.study', {
    study: props.study.title,
    source: props.source.name,
    state: [
      t(`holding.${state.value}`),
      props.holding?.how === 'identifier'
        ? t('holding.byIdentifier')
        : props.holding?.how === 'title'
          ? t('holding.byTitle')
          : '',
      state.value === 'held' &&
        indexes.value &&
        t('known.headings', { n: props.holding?.headings ?? 0 }, props.holding?.headings ?? 0),
      props.holding?.changed && t('known.otherwise', { day: d(props.holding.changed, 'day') }),
    ]
      .filter(Boolean)
      .join(', '),
  }),
)

async function settle(to: 'held' | 'absent') {
  if (!props.holding) return
  try {
    await ask(
      api.PATCH('/api/reviews/{review}/holdings', {
        params: { path: { review: review.id } },
        body: { ...props.holding, state: to },
      }),
    )
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
  sources.fresh(figures.holdings, figures.bench, figures.coverage)
}
</script>

<template>
  <v-menu v-if="state === 'near'">
    <template #activator="{ props: menu }"
      ><button
        v-bind="menu"
        class="holds near"
        :aria-label="said"
        :title="t('holding.compare', { source: source.name })"
      >
        ?
      </button></template
    >
    <v-list>
      <v-list-item
        :title="t('bench.openRecords')"
        @click="holding?.record && reader.one(holding.record, source.name)"
      />
      <v-list-item :title="t('holding.is')" @click="settle('held')" />
      <v-list-item :title="t('holding.isNot')" @click="settle('absent')" />
    </v-list>
  </v-menu>
  <i v-else class="holds" :class="[state, { bare }]" role="img" :aria-label="said" :title="said">{{
    state === 'held' ? '✓' : state === 'absent' ? '–' : '·'
  }}</i>
</template>

<style scoped>
.holds {
  display: inline-grid;
  place-items: center;
  width: 18px;
  height: 18px;
  font: 600 12px var(--ui);
  color: var(--ink);
  border: 0;
  background: none;
  padding: 0;
}

.holds.absent,
.holds.unknown {
  color: var(--ink-2);
}

.holds.bare {
  border-bottom: 1.5px dotted var(--ink-2);
}

.holds.near {
  border-radius: 9px;
  background: var(--gold-bright);
  color: var(--night);
  cursor: pointer;
}
</style>
