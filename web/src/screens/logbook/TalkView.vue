<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { RouteLocationRaw } from 'vue-router'
import type { Note } from '@/api/client'
import EmptyState from '@/parts/EmptyState.vue'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useTalk } from '@/state/talk'

/** All that was noted and is open, and what was settled, with the way to what each is on. */
const { t, d } = useI18n()
const review = useReview()
const talk = useTalk()
const problem = useProblem()

const settled = ref(false)
const shown = computed(() => talk.all.filter((x) => settled.value || !x.settled))

/** Where what a note is on can be seen. */
function way(x: Note): RouteLocationRaw {
  const params = { review: review.id }
  switch (x.kind) {
    case 'version':
      return { name: 'logbook', params }
    case 'study':
    case 'question':
      return { name: 'question', params }
    case 'block':
      return { name: 'blocks', params }
    default:
      return { name: 'strategy', params }
  }
}
</script>

<template>
  <div>
    <div class="row top">
      <p class="small grow">{{ t('talk.pageHint') }}</p>
      <label v-if="talk.all.length > talk.open.length" class="row small"
        ><input v-model="settled" type="checkbox" />{{
          t('talk.showSettled', { n: talk.all.length - talk.open.length })
        }}</label
      >
      <button
        class="btn outline"
        @click="talk.on = { kind: 'question', about: '', name: t('talk.theQuestion') }"
      >
        {{ t('talk.onQuestion') }}
      </button>
    </div>
    <p v-if="talk.asked.error" class="wrong" role="alert">{{ problem(talk.asked.error) }}</p>
    <EmptyState
      v-else-if="talk.asked.data && !shown.length"
      :title="t(talk.all.length ? 'talk.allSettled' : 'talk.emptyTitle')"
      :text="t('talk.emptyText')"
    />
    <ul v-else class="all" :aria-label="t('talk.all')">
      <li v-for="x in shown" :key="x.id" class="card" :class="{ settled: x.settled }">
        <div class="row">
          <span class="kind small">{{ t(`talk.kind.${x.kind}`) }}</span>
          <router-link class="link name" :to="way(x)">{{ x.name }}</router-link>
          <span class="grow" />
          <span class="small"
            ><template v-if="x.who">{{ x.who }}, </template>{{ d(x.at!, 'day') }}</span
          >
        </div>
        <p class="words">{{ x.words }}</p>
        <div class="row">
          <span v-if="x.settled" class="small">{{
            t(x.settledBy ? 'talk.settledBy' : 'talk.settledOn', {
              who: x.settledBy,
              day: d(x.settled, 'day'),
            })
          }}</span>
          <span class="grow" />
          <button class="btn bare" @click="talk.drop(x)">{{ t('talk.drop') }}</button>
          <button class="btn outline" @click="talk.settle(x, !x.settled)">
            {{ t(x.settled ? 'talk.reopen' : 'talk.settle') }}
          </button>
        </div>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.top {
  gap: 14px;
  flex-wrap: wrap;
  margin-bottom: 10px;
}

.all {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 9px;
}

.all li {
  padding: 10px 14px;
}

.kind {
  text-transform: none;
}

.name {
  font-weight: 650;
  overflow-wrap: anywhere;
}

.words {
  margin: 5px 0;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}

.settled .words {
  color: var(--ink-2);
}

.wrong {
  color: var(--miss);
}
</style>
