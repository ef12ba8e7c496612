<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { figures, useFigure } from '@/figures'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** In whose names lines are written, and how they are numbered. */
const wanted = defineModel<string>({ required: true })

const { t } = useI18n()
const review = useReview()
const sources = useSources()
const dialects = useFigure(figures.dialects, () => null)

/** How lines are numbered: it changes nothing that is found, and what was put together by number goes on meaning the same. */
const orders = ['', 'headings', 'flat'] as const
type LineOrder = (typeof orders)[number]
function number(order: LineOrder) {
  review.change(
    { key: 'numbering', params: { how: t(`strategy.order.${order || 'concept'}`) } },
    { edits: [{ op: 'order', order }] },
  )
}
</script>

<template>
  <label class="row small"
    >{{ t('strategy.typedFor')
    }}<select v-model="wanted" class="field typed">
      <option value="">{{ t('strategy.cql') }}</option>
      <optgroup v-if="sources.all.length" :label="t('strategy.byProtocol')">
        <option v-for="s in sources.all" :key="s.id" :value="`s${s.id}`">{{ s.name }}</option>
      </optgroup>
      <optgroup :label="t('strategy.byHand')">
        <option
          v-for="x in dialects.data.value ?? []"
          :key="x.name"
          :value="`d${x.name}`"
          :disabled="!!x.broken"
        >
          {{ x.title }}, {{ t(x.typed === 'lines' ? 'strategy.byLine' : 'strategy.byQuery') }}
        </option>
      </optgroup>
    </select></label
  >
  <label class="row small"
    >{{ t('strategy.numbered')
    }}<select
      class="field typed"
      :value="review.document.order ?? ''"
      @change="number(($event.target as HTMLSelectElement).value as LineOrder)"
    >
      <option v-for="x in orders" :key="x" :value="x">
        {{ t(`strategy.order.${x || 'concept'}`) }}
      </option>
    </select></label
  >
</template>

<style scoped>
.typed {
  width: auto;
  max-width: 190px;
}
</style>
