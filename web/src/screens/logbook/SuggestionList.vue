<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { CheckSuggestion } from '@/api/client'
import { useReview } from '@/state/review'

/** What a colleague suggested, to be taken or declined: what is taken is a change like any other, and undone like one. */
defineProps<{ suggestions: CheckSuggestion[] }>()
const emit = defineEmits<{ decide: [s: CheckSuggestion, state: 'open' | 'taken' | 'declined'] }>()
const { t, d } = useI18n()
const review = useReview()

function take(s: CheckSuggestion) {
  if (s.edits?.length)
    review.change({ key: 'takeSuggestion', params: { says: s.says ?? '' } }, { edits: s.edits })
  emit('decide', s, 'taken')
}
</script>

<template>
  <div v-if="suggestions.length">
    <h2 class="sect">{{ t('check.suggestions') }}</h2>
    <ul class="all" :aria-label="t('check.suggestions')">
      <li v-for="s in suggestions" :key="s.id" class="card" :class="s.state">
        <p class="mono small">{{ s.line }}</p>
        <p v-if="s.says">
          <b>{{ s.says }}</b>
        </p>
        <p v-if="s.words">{{ s.words }}</p>
        <div class="row">
          <span class="small">
            <template v-if="s.state !== 'open'">{{
              t(`check.state.${s.state}`, { who: s.decidedBy ?? '', day: d(s.decided!, 'day') })
            }}</template>
            <template v-else>{{ s.who }}</template>
          </span>
          <span class="grow" />
          <template v-if="s.state === 'open'">
            <button class="btn bare" @click="emit('decide', s, 'declined')">
              {{ t('check.decline') }}
            </button>
            <button class="btn outline" @click="take(s)">
              {{ t(s.edits?.length ? 'check.take' : 'check.heed') }}
            </button>
          </template>
          <button v-else class="btn bare" @click="emit('decide', s, 'open')">
            {{ t('check.reopen') }}
          </button>
        </div>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.sect {
  margin-top: 14px;
}

.all {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 8px;
}

.all li {
  padding: 9px 13px;
  overflow-wrap: anywhere;
}

.declined p {
  color: var(--ink-2);
}
</style>
