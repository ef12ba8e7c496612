<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useReview } from '@/state/review'
import type { State } from './candidates'

/** What is looked at, against what; both can be chosen here. */
defineProps<{ contrast?: number; counts?: Record<State, number> }>()

const { t, n } = useI18n()
const review = useReview()

const against = computed(() => {
  const other = review.samples.find((s) => s.id === review.view.against)
  return other?.name ?? (review.view.rest ? t('samples.rest') : t('samples.nothing'))
})
const others = computed(() => review.samples.filter((s) => s.id !== review.view.sample))

function look(sample: number) {
  const same = review.view.against === sample
  void review.look({ sample, against: same ? undefined : review.view.against, rest: review.view.rest || same })
}

const set = (a?: number, rest = false) => void review.look({ sample: review.view.sample, against: a, rest })
</script>

<template>
  <div class="row looked">
    <span class="small">{{ t('harvest.typical') }}</span>
    <v-menu>
      <template #activator="{ props: menu }">
        <button class="chip" v-bind="menu"><b class="cut">{{ review.sample?.name }}</b><em>{{ t('count.records', { n: n(review.sample?.records ?? 0, 'whole') }, review.sample?.records ?? 0) }}</em></button>
      </template>
      <v-list><v-list-item v-for="s in review.samples" :key="s.id" :title="s.name" :subtitle="t('count.records', { n: n(s.records, 'whole') }, s.records)" @click="look(s.id)" /></v-list>
    </v-menu>
    <span class="small">{{ t('harvest.against') }}</span>
    <v-menu>
      <template #activator="{ props: menu }">
        <button class="chip" v-bind="menu"><b class="cut">{{ against }}</b><em v-if="contrast">{{ n(contrast, 'whole') }}</em></button>
      </template>
      <v-list>
        <v-list-item :title="t('samples.rest')" @click="set(undefined, true)" />
        <v-list-item v-for="s in others" :key="s.id" :title="s.name" :subtitle="t('count.records', { n: n(s.records, 'whole') }, s.records)" @click="set(s.id)" />
        <v-list-item :title="t('samples.nothing')" @click="set()" />
      </v-list>
    </v-menu>
    <span class="grow" />
    <span v-if="counts" class="small counts">{{ t('harvest.counts', { open: n(counts.open, 'whole'), kept: n(counts.kept, 'whole'), parked: n(counts.parked, 'whole'), dropped: n(counts.dropped, 'whole') }) }}</span>
  </div>
</template>

<style scoped>
.looked {
  flex-wrap: wrap;
}

.chip b {
  max-width: 200px;
}

.counts {
  white-space: nowrap;
}
</style>
