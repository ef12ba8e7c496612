<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Round } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useProblem } from '@/state/problem'
import { useReader } from '@/parts/reader'

/** References of a round that led nowhere; what resembles one is offered, and never taken by itself. */
const props = defineProps<{ round: Round }>()
const emit = defineEmits<{ close: [] }>()
const { t, n } = useI18n()
const reader = useReader()
const problem = useProblem()

const lost = useFigure(figures.lost, () => ({ round: props.round.id }))
const several = 200
const all = ref(false)
const rows = computed(() => {
  const near = [...(lost.data.value ?? [])].sort((a, b) => Number(!!b.near) - Number(!!a.near))
  return all.value ? near : near.slice(0, several)
})
</script>

<template>
  <v-dialog
    :model-value="true"
    max-width="820"
    :aria-label="t('found.lostTitle')"
    @update:model-value="emit('close')"
  >
    <v-card class="sheet tall">
      <div class="row">
        <h2 class="display">{{ t('found.lostTitle') }}</h2>
        <span class="grow" />
        <button class="btn outline" @click="emit('close')">{{ t('reader.close') }}</button>
      </div>
      <p class="small">{{ t('found.lostText') }}</p>
      <p v-if="lost.error.value" class="wrong" role="alert">{{ problem(lost.error.value) }}</p>
      <ul tabindex="0" :aria-label="t('found.lostTitle')">
        <li v-for="(l, i) in rows" :key="i">
          <p>{{ l.line }}</p>
          <p class="small">
            {{ t(`found.why.${l.why}`) }} {{ t('found.citedIn', { title: l.in.title }) }}
          </p>
          <p v-if="l.near">
            {{ t('found.resembles') }}
            <button class="link" @click="reader.one(l.near.id, l.near.title)">
              {{ l.near.title }}
            </button>
            <span class="small"> {{ l.near.byline }} {{ l.near.year || '' }}</span>
          </p>
        </li>
      </ul>
      <button
        v-if="(lost.data.value?.length ?? 0) > rows.length"
        class="btn bare"
        @click="all = true"
      >
        {{ t('found.lostAll', { n: n(lost.data.value?.length ?? 0, 'whole') }) }}
      </button>
    </v-card>
  </v-dialog>
</template>

<style scoped>
ul {
  overflow-y: auto;
  padding: 0;
  margin: 8px 0;
  list-style: none;
}

li {
  padding: 7px 0;
  border-bottom: 1px solid var(--line-soft);
}

.wrong {
  color: var(--miss);
}
</style>
