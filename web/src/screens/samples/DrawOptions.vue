<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { NewDraw } from '@/api/client'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** From where is drawn, how, how many, and whether all together or each concept by itself. */
defineProps<{ several: boolean }>()
const from = defineModel<number[]>('from', { required: true })
const how = defineModel<NewDraw['how']>('how', { required: true })
const atMost = defineModel<number>('atMost', { required: true })
const seed = defineModel<number>('seed', { required: true })
const what = defineModel<'parts' | 'together' | 'each'>('what', { required: true })

const { t } = useI18n()
const review = useReview()
const sources = useSources()
const ways = ['parts', 'together', 'each'] as const
const hows = ['all', 'newest', 'years', 'random'] as const

function toggle(id: number) {
  from.value = from.value.includes(id)
    ? from.value.length > 1
      ? from.value.filter((x) => x !== id)
      : from.value
    : [...from.value, id]
}
</script>

<template>
  <div class="row opts">
    <span class="small">{{ t('draw.from') }}</span>
    <span class="group" role="group" :aria-label="t('draw.sources')">
      <button
        v-for="s in sources.on"
        :key="s.id"
        class="opt"
        :class="{ on: from.includes(s.id) }"
        :aria-pressed="from.includes(s.id)"
        @click="toggle(s.id)"
      >
        {{ s.name }}
      </button>
    </span>
    <router-link
      v-if="!sources.on.length"
      class="btn outline"
      :to="{ name: 'sources', params: { review: review.id } }"
      >{{ t('draw.add') }}</router-link
    >
    <span class="group" role="group" :aria-label="t('draw.how')">
      <button
        v-for="h in hows"
        :key="h"
        class="opt"
        :class="{ on: how === h }"
        :aria-pressed="how === h"
        @click="how = h"
      >
        {{ t(`how.${h}`) }}
      </button>
    </span>
    <label class="small"
      >{{ t('draw.atMost') }}
      <input
        v-model.number="atMost"
        class="field many"
        type="number"
        min="1"
        max="1000000"
        :aria-label="t('draw.atMostLabel')"
    /></label>
    <label v-if="how === 'random'" class="small"
      >{{ t('draw.seed') }}
      <input v-model.number="seed" class="field few" type="number" min="0" max="2147483647"
    /></label>
    <span v-if="several" class="group" role="group" :aria-label="t('draw.what')">
      <button
        v-for="w in ways"
        :key="w"
        class="opt"
        :class="{ on: what === w }"
        :aria-pressed="what === w"
        @click="what = w"
      >
        {{ t(`draw.${w}`) }}
      </button>
    </span>
  </div>
</template>

<style scoped>
.opts {
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 13px;
}

.many {
  width: 84px;
}

.few {
  width: 70px;
}
</style>
