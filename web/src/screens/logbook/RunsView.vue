<script setup lang="ts">
import { figures, usePages } from '@/figures'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Run } from '@/api/client'
import EmptyState from '@/parts/EmptyState.vue'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import HandRunForm from './HandRunForm.vue'
import RunRow from './RunRow.vue'

/** What was asked where and when, and what came of it. Nothing is ever taken out. */
const { t, n } = useI18n()
const review = useReview()
const problem = useProblem()

const passing = ref(false)
const asked = usePages(
  figures.runs,
  () => ({ passing: passing.value }),
  (last) => (last.runs.length === 200 ? last.runs.at(-1)!.id : undefined),
)
const shown = computed(() => asked.data.value?.pages.flatMap((p) => p.runs) ?? [])
const counted = computed(() => asked.data.value?.pages[0]?.passing ?? 0)
const writing = ref(false)
const was = ref<Run>() // what is put right
function correct(r: Run) {
  was.value = r
  writing.value = true
}
function done() {
  writing.value = false
  was.value = undefined
}
</script>

<template>
  <div>
    <div class="row top">
      <p class="small grow">{{ t('runs.hint') }}</p>
      <label v-if="counted" class="row small"
        ><input v-model="passing" type="checkbox" />{{
          t('runs.passing', { n: n(counted, 'whole') })
        }}</label
      >
      <router-link
        class="btn outline"
        :to="{ name: 'strategy', params: { review: review.id }, query: { part: 'everywhere' } }"
        >{{ t('runs.everywhere') }}</router-link
      >
      <button v-if="!writing" class="btn outline" @click="writing = true">
        {{ t('runs.write') }}
      </button>
    </div>
    <HandRunForm v-if="writing" :key="was?.id" :was="was" @done="done" />
    <p v-if="asked.error.value" class="wrong" role="alert">{{ problem(asked.error.value) }}</p>
    <EmptyState
      v-else-if="asked.isSuccess.value && !shown.length && !writing"
      :title="t('runs.emptyTitle')"
      :text="t('runs.emptyText')"
    >
      <router-link
        class="btn"
        :to="{ name: 'strategy', params: { review: review.id }, query: { part: 'everywhere' } }"
        >{{ t('runs.everywhere') }}</router-link
      >
    </EmptyState>
    <table v-else-if="shown.length" class="figures" :aria-label="t('runs.table')">
      <thead>
        <tr>
          <th class="left">{{ t('runs.when') }}</th>
          <th class="left">{{ t('runs.place') }}</th>
          <th>{{ t('runs.records') }}</th>
          <th class="left">{{ t('runs.of') }}</th>
          <th class="left">{{ t('runs.query') }}</th>
        </tr>
      </thead>
      <tbody>
        <RunRow v-for="r in shown" :key="r.id" :run="r" @correct="correct(r)" />
      </tbody>
    </table>
    <button
      v-if="asked.hasNextPage.value"
      class="btn bare"
      :disabled="asked.isFetching.value"
      @click="asked.fetchNextPage()"
    >
      {{ t('runs.older') }}
    </button>
  </div>
</template>

<style scoped>
.top {
  gap: 14px;
  margin-bottom: 8px;
  flex-wrap: wrap;
}

.top p {
  flex: 1 1 260px;
}

.wrong {
  color: var(--miss);
}
</style>
