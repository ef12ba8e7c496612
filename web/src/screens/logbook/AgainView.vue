<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { figures, useFigure } from '@/figures'
import EmptyState from '@/parts/EmptyState.vue'
import { useProblem } from '@/state/problem'
import NewRecords from './NewRecords.vue'
import ToldTo from './ToldTo.vue'
import WatchForm from './WatchForm.vue'

/** When the search is run again by itself, and what the last time brought that the time before did not. */
const { t, n, d } = useI18n()
const problem = useProblem()

const asked = useFigure(figures.since, () => null)
const since = computed(() => asked.data.value)
</script>

<template>
  <div>
    <WatchForm />
    <p v-if="asked.error.value" class="wrong" role="alert">{{ problem(asked.error.value) }}</p>
    <EmptyState
      v-else-if="since && !since.sources.length"
      :title="t('again.emptyTitle')"
      :text="t('again.emptyText')"
    />
    <template v-else-if="since">
      <h2 class="sect">{{ t('again.since') }}</h2>
      <table class="figures" :aria-label="t('again.since')">
        <thead>
          <tr>
            <th class="left">{{ t('everywhere.source') }}</th>
            <th class="left">{{ t('again.between') }}</th>
            <th>{{ t('again.new') }}</th>
            <th>{{ t('again.gone') }}</th>
            <th>{{ t('again.changed') }}</th>
            <th>{{ t('again.indexed') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in since.sources" :key="s.source">
            <td class="left">
              <b>{{ s.name }}</b>
              <span v-if="s.other" class="small gold">{{ t('again.other') }}</span>
              <span v-if="s.moved" class="small gold">{{ t('again.moved') }}</span>
            </td>
            <td class="left small">
              {{ d(s.from, 'day') }}, {{ d(s.from, 'time') }} – {{ d(s.to, 'day') }},
              {{ d(s.to, 'time') }}
            </td>
            <td>{{ n(s.new, 'whole') }}</td>
            <td>{{ n(s.gone, 'whole') }}</td>
            <td>{{ n(s.changed, 'whole') }}</td>
            <td>{{ n(s.indexed, 'whole') }}</td>
          </tr>
        </tbody>
      </table>
      <NewRecords :since="since" />
    </template>
    <ToldTo />
  </div>
</template>

<style scoped>
.sect {
  margin: 16px 0 4px;
}

.gold {
  color: var(--gold-deep);
  display: block;
}

.wrong {
  color: var(--miss);
}
</style>
