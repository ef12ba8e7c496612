<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { figures, useFigure } from '@/figures'
import EmptyState from '@/parts/EmptyState.vue'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import EverywhereRow from './EverywhereRow.vue'
import OverlapPicture from './OverlapPicture.vue'
import SharedTable from './SharedTable.vue'
import { useInterval } from './interval'

/** The strategy run at all chosen sources at once: what each answers, and how the answers stand to each other. */
const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const problem = useProblem()
const interval = useInterval()

const asked = useFigure(figures.everywhere, () => ({ holdings: sources.holdings.length }), {
  keep: true,
  // It goes on in the background; news of it may be missed.
  again: (q) => (q.state.data?.sources.some(underWay) ? 2000 : false),
})
const all = computed(() => asked.data.value)

function underWay(s: { waiting: boolean; fetch?: string }) {
  return s.waiting || s.fetch === 'waiting' || s.fetch === 'drawing'
}

/** Those that are left out; a source that comes later is in. */
const out = ref(new Set<number>())
function choose(source: number, on: boolean) {
  const next = new Set(out.value)
  if (on) next.delete(source)
  else next.add(source)
  out.value = next
}
const chosen = computed(() =>
  (all.value?.sources ?? []).filter((s) => !s.off && s.query && !out.value.has(s.source)),
)
const records = ref(300)
const once = useOnce()
const run = useMutation({
  mutationFn: () =>
    once((headers) =>
      ask(
        api.POST('/api/reviews/{review}/runs', {
          params: { path: { review: review.id } },
          headers,
          body: { sources: chosen.value.map((s) => s.source), records: records.value },
        }),
      ),
    ),
  onSettled: () => sources.fresh(figures.everywhere, figures.runs),
})
const going = computed(() => (all.value?.sources ?? []).filter(underWay))
const answered = computed(() =>
  (all.value?.sources ?? []).filter((s) => s.run?.records !== undefined),
)
const stale = computed(() => answered.value.some((s) => s.stale))
const unfetched = computed(() => answered.value.filter((s) => !s.only).map((s) => s.name))
</script>

<template>
  <div>
    <p v-if="asked.error.value && !all" class="wrong" role="alert">
      {{ problem(asked.error.value) }}
    </p>
    <EmptyState
      v-else-if="all && !all.sources.length"
      :title="t('everywhere.emptyTitle')"
      :text="t('everywhere.emptyText')"
    >
      <router-link class="btn" :to="{ name: 'sources', params: { review: review.id } }">{{
        t('everywhere.toSources')
      }}</router-link>
    </EmptyState>
    <template v-else-if="all">
      <div class="row top">
        <p class="grow small">{{ t('everywhere.hint') }}</p>
        <label class="row small"
          >{{ t('everywhere.fetch')
          }}<select v-model.number="records" class="field most">
            <option v-for="x in [0, 100, 300, 1000, 10000]" :key="x" :value="x">
              {{ x ? t('everywhere.atMost', { n: n(x, 'whole') }) : t('everywhere.noRecords') }}
            </option>
          </select></label
        >
        <button
          class="btn"
          :disabled="!chosen.length || run.isPending.value || going.length > 0"
          @click="run.mutate()"
        >
          {{ t('everywhere.run', { n: chosen.length }, chosen.length) }}
        </button>
      </div>
      <p v-if="run.error.value" class="wrong" role="alert">{{ problem(run.error.value) }}</p>
      <p v-if="going.length" class="small" role="status">
        {{
          t('everywhere.going', {
            sources: going
              .map((s) =>
                s.waiting || !s.wanted
                  ? s.name
                  : t('everywhere.soFar', {
                      name: s.name,
                      got: n(s.fetched, 'whole'),
                      of: n(s.wanted, 'whole'),
                    }),
              )
              .join(', '),
          })
        }}
      </p>
      <p v-else-if="stale" class="stale" role="status">{{ t('everywhere.stale') }}</p>

      <table class="figures" :aria-label="t('everywhere.table')">
        <thead>
          <tr>
            <th class="left">{{ t('everywhere.source') }}</th>
            <th>{{ t('everywhere.records') }}</th>
            <th>{{ t('everywhere.only') }}</th>
            <th v-if="all.keys">{{ t('everywhere.keys') }}</th>
            <th>{{ t('everywhere.fetched') }}</th>
            <th class="left">{{ t('everywhere.asked') }}</th>
          </tr>
        </thead>
        <tbody>
          <EverywhereRow
            v-for="s in all.sources"
            :key="s.source"
            :row="s"
            :keys="all.keys"
            :on="!out.has(s.source)"
            @choose="choose(s.source, $event)"
          />
          <tr v-for="h in all.byHand" :key="`hand ${h.run}`">
            <td class="left">
              <b>{{ h.place }}</b> <span class="small">{{ t('everywhere.byHand') }}</span>
            </td>
            <td>{{ n(h.records, 'whole') }}</td>
            <td>
              <template v-if="h.only">{{ interval(h.only) }}</template>
            </td>
            <td v-if="all.keys"></td>
            <td>{{ n(h.fetched, 'whole') }}</td>
            <td class="left">
              <router-link
                class="link small"
                :to="{
                  name: 'logbook',
                  params: { review: review.id },
                  query: { part: 'runs' },
                }"
                >{{ t('everywhere.toRuns') }}</router-link
              >
            </td>
          </tr>
        </tbody>
        <tfoot v-if="answered.length + all.byHand.length > 1">
          <tr>
            <td class="left">
              <b>{{ t('everywhere.together') }}</b>
            </td>
            <td>{{ n(all.records, 'whole') }}</td>
            <td colspan="4" class="left">
              <template v-if="all.together">
                <b class="big">{{ interval(all.together) }}</b>{{ ' '
                }}{{ t(all.exact ? 'everywhere.once' : 'everywhere.onceAbout') }}
              </template>
              <span v-else class="small">{{ t('everywhere.unknown') }}</span>
              <p v-if="all.together && unfetched.length" class="small">
                {{ t('everywhere.without', { sources: unfetched.join(', ') }) }}
              </p>
            </td>
          </tr>
        </tfoot>
      </table>

      <div v-if="all.together" class="under">
        <OverlapPicture :sources="all.sources" />
        <SharedTable :sources="all.sources" :pairs="all.pairs" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.top {
  margin-bottom: 10px;
  gap: 14px;
  flex-wrap: wrap;
}

.top p {
  flex: 1 1 260px;
}

.most {
  width: auto;
}

.stale {
  color: var(--gold-deep);
  margin-bottom: 6px;
}

tfoot td {
  border-top: 1px solid var(--line);
  vertical-align: top;
  padding-top: 8px;
}

.big {
  font-family: var(--display);
  font-size: 20px;
}

.under {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 24px;
  margin-top: 18px;
  align-items: start;
}

.wrong {
  color: var(--miss);
  margin: 8px 0;
}

@media (max-width: 1000px) {
  .under {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
