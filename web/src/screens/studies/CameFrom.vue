<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import EmptyState from '@/parts/EmptyState.vue'
import { useReader } from '@/parts/reader'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSaid } from './said'

/** The key studies: where each came from, which rounds lead to it, and whether the strategy catches it. */
const { t } = useI18n()
const review = useReview()
const reader = useReader()
const problem = useProblem()
const said = useSaid()
const rows = computed(() => {
  const came = new Map((said.data.value?.studies ?? []).map((s) => [s.id, s]))
  return review.keyStudies.map((k) => ({ ...k, came: came.get(k.id) }))
})
</script>

<template>
  <div>
    <p v-if="said.error.value" class="wrong" role="alert">{{ problem(said.error.value) }}</p>
    <EmptyState
      v-if="!review.keyStudies.length"
      :title="t('keys.emptyTitle')"
      :text="t('keys.emptyText')"
    >
      <router-link class="btn" :to="{ name: 'question', params: { review: review.id } }">{{
        t('keys.bring')
      }}</router-link>
    </EmptyState>
    <table v-else class="figures">
      <thead>
        <tr>
          <th class="left">{{ t('keys.study') }}</th>
          <th>{{ t('keys.year') }}</th>
          <th class="left">{{ t('found.cameBy') }}</th>
          <th class="left">{{ t('found.roundsTo') }}</th>
          <th>{{ t('keys.caught') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="k in rows" :key="k.id">
          <td class="left">
            <button class="link" @click="reader.one(k.record, t('keys.one'))">
              {{ k.title || t('record.noTitle') }}
            </button>
            <div class="small">{{ k.byline }}</div>
          </td>
          <td>{{ k.year || '–' }}</td>
          <td class="left small">
            <template v-if="k.came"
              >{{ t(`found.came.${k.came.way || 'unknown'}`)
              }}<template v-if="k.came.origin">, {{ k.came.origin }}</template></template
            >
          </td>
          <td class="left small">{{ k.came?.rounds.join(', ') || '–' }}</td>
          <td>
            <i
              v-if="k.came"
              class="mark"
              :class="{ missed: !k.came.caught }"
              role="img"
              :aria-label="t(k.came.caught ? 'strip.caught' : 'strip.missed')"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.mark {
  display: inline-block;
  width: 13px;
  height: 13px;
  border-radius: 3px;
  background: var(--ink);
}

.mark.missed {
  background: none;
  border: 1.5px solid var(--miss);
}

.wrong {
  color: var(--miss);
}
</style>
