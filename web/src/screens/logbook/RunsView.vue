<script setup lang="ts">
import { keepPreviousData, useInfiniteQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Run, type Runs } from '@/api/client'
import EmptyState from '@/parts/EmptyState.vue'
import SourceNotes from '@/parts/SourceNotes.vue'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import HandRunForm from './HandRunForm.vue'
import { useVersionName, useVersions } from './versions'

/** What was asked where and when, and what came of it. Nothing is ever taken out. */
const { t, n, d } = useI18n()
const review = useReview()
const problem = useProblem()
const named = useVersionName()
const versions = useVersions()

const passing = ref(false)
const asked = useInfiniteQuery({
  queryKey: computed(() => ['runs', review.id, passing.value]),
  queryFn: ({ pageParam }) =>
    ask(
      api.GET('/api/reviews/{review}/runs', {
        params: {
          path: { review: review.id },
          query: { before: pageParam || undefined, passing: passing.value },
        },
      }),
    ),
  initialPageParam: 0,
  getNextPageParam: (last: Runs) => (last.runs.length === 200 ? last.runs.at(-1)!.id : undefined),
  enabled: () => review.id > 0,
  placeholderData: keepPreviousData,
})
const shown = computed(() => asked.data.value?.pages.flatMap((p) => p.runs) ?? [])
const counted = computed(() => asked.data.value?.pages[0]?.passing ?? 0)
const writing = ref(false)
const versionOf = (r: Run) =>
  versions.data.value?.find((v) => v.revision === r.revision && v.id > 0)
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
    <HandRunForm v-if="writing" @done="writing = false" />
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
        <tr v-for="r in shown" :key="r.id">
          <td class="left">
            {{ d(r.at, 'day') }}, {{ d(r.at, 'time') }}
            <span v-if="r.who" class="small">{{ r.who }}</span>
          </td>
          <td class="left">
            <b>{{ r.place }}</b>
            <span v-if="r.kind !== 'asked'" class="small">{{
              t(r.way ? `runs.way.${r.way}` : `runs.kind.${r.kind}`)
            }}</span>
          </td>
          <td>
            <template v-if="r.records !== undefined">{{ n(r.records, 'whole') }}</template><span
              v-else-if="r.problem"
              class="wrong small"
              >{{ r.problem.title }}</span
            ><span v-else class="small">{{ t('runs.unknown') }}</span>
          </td>
          <td class="left small">
            {{
              versionOf(r)
                ? named(versionOf(r)!)
                : t('runs.revision', { n: n(r.revision, 'whole') })
            }}
          </td>
          <td class="left query">
            <details v-if="r.query || r.notes.length || r.note">
              <summary class="small">
                <span class="mono one">{{ r.query.slice(0, 60) || r.note }}</span>
              </summary>
              <pre class="mono">{{ r.query }}</pre>
              <p v-if="r.note" class="small">{{ r.note }}</p>
              <p v-if="r.echoed && r.echoed !== r.query" class="small">
                {{ t('runs.echoed') }} <span class="mono">{{ r.echoed }}</span>
              </p>
              <SourceNotes :notes="r.notes" />
            </details>
          </td>
        </tr>
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

td {
  vertical-align: top;
}

.query {
  width: 40%;
  max-width: 0; /* so that a long query is cut where its column ends */
}

td:nth-child(2) {
  overflow-wrap: anywhere;
  min-width: 120px;
}

summary {
  cursor: pointer;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

pre {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font-size: 12.5px;
  max-height: 180px;
  overflow: auto;
  margin: 6px 0;
}

.wrong {
  color: var(--miss);
}
</style>
