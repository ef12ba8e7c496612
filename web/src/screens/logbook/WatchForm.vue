<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** How often the search is run again by itself, from which day on, and where. */
const { t, d } = useI18n()
const review = useReview()
const sources = useSources()
const problem = useProblem()

const path = () => ({ params: { path: { review: review.id } } })
const asked = useFigure(figures.watched, () => null)
const kept = computed(() => asked.data.value)

const rhythms = ['week', 'month', 'once'] as const
const every = ref<(typeof rhythms)[number]>('month')
const tomorrow = () => new Date(Date.now() + 24 * 3600 * 1000).toISOString().slice(0, 10)
const day = ref(tomorrow())
const at = ref<number[]>([])
watch(
  [kept, () => sources.on],
  () => {
    if (!kept.value) return
    every.value = kept.value.every
    if (kept.value.next) day.value = kept.value.next.slice(0, 10)
    at.value = kept.value.on ? kept.value.sources : sources.on.map((s) => s.id)
  },
  { immediate: true },
)
const save = useMutation({
  mutationFn: (on: boolean) =>
    ask(
      api.PUT('/api/reviews/{review}/watch', {
        ...path(),
        body: { on, every: every.value, sources: at.value, next: `${day.value}T05:00:00Z` },
      }),
    ),
  onSettled: () => sources.fresh(figures.watched),
})
</script>

<template>
  <form
    class="card"
    :aria-label="t('again.title')"
    @submit.prevent="at.length && day && save.mutate(true)"
  >
    <div class="row">
      <b>{{ t('again.title') }}</b>
      <select v-model="every" class="field short" :aria-label="t('again.every')">
        <option v-for="x in rhythms" :key="x" :value="x">{{ t(`again.rhythm.${x}`) }}</option>
      </select>
      <label class="row small"
        >{{ t('again.from') }}<input v-model="day" type="date" class="field short"
      /></label>
      <span class="small">{{ t('again.at') }}</span>
      <label v-for="s in sources.on" :key="s.id" class="row small"
        ><input v-model="at" type="checkbox" :value="s.id" />{{ s.name }}</label
      >
      <span class="grow" />
      <button class="btn" :disabled="!at.length || !day || save.isPending.value">
        {{ t(kept?.on ? 'again.change' : 'again.begin') }}
      </button>
      <button v-if="kept?.on" type="button" class="btn bare" @click="save.mutate(false)">
        {{ t('again.end') }}
      </button>
    </div>
    <p v-if="save.error.value" class="wrong" role="alert">{{ problem(save.error.value) }}</p>
    <p v-else-if="kept?.on && kept.next" class="small" role="status">
      {{ t('again.next', { day: d(kept.next, 'day') })
      }}<template v-if="kept.missed">
        {{ t('again.missed', { n: kept.missed }, kept.missed) }}</template
      >
    </p>
    <p v-else class="small">{{ t('again.hint') }}</p>
  </form>
</template>

<style scoped>
form {
  padding: 12px 14px;
  display: grid;
  gap: 6px;
}

.row {
  flex-wrap: wrap;
}

.short {
  width: auto;
}

.wrong {
  color: var(--miss);
}
</style>
