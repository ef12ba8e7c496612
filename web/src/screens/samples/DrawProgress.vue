<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Draw } from '@/api/client'
import { figures } from '@/figures'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import DrawReport from './DrawReport.vue'

/** Draws that are under way, or came to rest before they were at their end. */
const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const notes = useNotes()
const problem = useProblem()
const now = useNow({ interval: 1000 })
const report = ref<Draw>()

const open = computed(() => sources.draws.filter((x) => x.state !== 'done'))
const running = (x: Draw) =>
  x.state === 'waiting' || x.state === 'drawing' || x.state === 'stopping'

function state(x: Draw): string {
  const of = { got: n(x.got, 'whole'), wanted: n(x.wanted || x.atMost, 'whole') }
  const left = x.pause ? Math.ceil((new Date(x.pause).getTime() - now.value.getTime()) / 1000) : 0
  if (left > 0 && running(x)) return t('draw.pause', { ...of, s: left })
  if (x.waits && running(x)) return t(`draw.waits.${x.waits}`, { source: x.from })
  return t(`draw.state.${x.state}`, of)
}

async function act(x: Draw, what: 'stop' | 'go-on') {
  const path = { path: { review: review.id, draw: x.id } }
  try {
    if (what === 'stop')
      await ask(api.POST('/api/reviews/{review}/draws/{draw}/stop', { params: path }))
    else
      await ask(
        api.POST('/api/reviews/{review}/draws/{draw}/go-on', {
          params: path,
          body: { atMost: x.atMost },
        }),
      )
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
  sources.fresh(figures.draws)
}
</script>

<template>
  <ul v-if="open.length" class="draws" aria-live="polite">
    <li v-for="x in open" :key="x.id">
      <b class="cut">{{ x.name }}</b><span class="small">{{ x.from }}</span>
      <progress
        :value="x.got"
        :max="x.wanted || 1"
        :aria-label="t('draw.progress', { name: x.name })"
      />
      <span class="small" :class="{ wrong: x.state === 'failed' }"
        >{{ state(x) }}<template v-if="x.problem"> · {{ x.problem }}</template></span
      >
      <button v-if="x.troubles" class="link small" @click="report = x">
        {{ t('draw.troubles', { n: n(x.troubles, 'whole') }, x.troubles) }}
      </button>
      <button
        v-if="running(x)"
        class="btn bare"
        :disabled="x.state === 'stopping'"
        :aria-label="t('draw.stopOne', { name: x.name })"
        @click="act(x, 'stop')"
      >
        {{ t('draw.stop') }}
      </button>
      <button
        v-else
        class="btn bare"
        :aria-label="t('draw.goOnOne', { name: x.name })"
        @click="act(x, 'go-on')"
      >
        {{ t('draw.goOn') }}
      </button>
    </li>
  </ul>
  <DrawReport v-if="report" :draw="report" @close="report = undefined" />
</template>

<style scoped>
li {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 7px 8px;
  border-bottom: 1px solid var(--line-soft);
}

b {
  max-width: 260px;
}

progress {
  max-width: 300px;
}
</style>
