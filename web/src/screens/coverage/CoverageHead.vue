<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Coverage } from '@/api/client'
import { useSaving } from '@/parts/files/saving'
import WithTip from '@/parts/WithTip.vue'
import { useReview } from '@/state/review'
import HalvesPart from './HalvesPart.vue'

/** How many key studies are caught, how sure that is, and what can be done with them all. */
const props = defineProps<{
  coverage: Coverage
  recall: NonNullable<Coverage['recall']>
  /** The records of studies that are missed where they could be found. */
  missed: number[]
}>()
const missedFirst = defineModel<boolean>('missedFirst', { required: true })
const planned = defineModel<boolean>('planned', { required: true })
const emit = defineEmits<{ estimate: [] }>()

const { t, n } = useI18n()
const review = useReview()
const saving = useSaving()
const halved = computed(() => review.document.halves !== undefined)
const saveMissed = () =>
  saving.save({ kind: 'picked', ids: props.missed }, t('save.missedName'), props.missed.length)
</script>

<template>
  <div class="row head">
    <div>
      <div class="big display">
        {{ recall.caught }}
        <span class="small">{{ t('coverage.caught', { of: recall.of }) }}</span>
      </div>
      <div class="small">
        {{
          t('coverage.recall', {
            share: n(recall.share, 'share'),
            low: Math.round(recall.low * 100),
            high: n(recall.high, 'share'),
          })
        }}
      </div>
    </div>
    <HalvesPart v-if="halved" :build="coverage.build" :test="coverage.test" />
    <span class="grow" />
    <div class="row acts">
      <WithTip v-if="review.keyStudies.length > 1" :text="t('halves.tip')">
        <template #default="{ describedBy }"
          ><button class="btn bare" :aria-describedby="describedBy" @click="review.split(!halved)">
            {{ t(halved ? 'halves.join' : 'halves.split') }}
          </button></template
        >
      </WithTip>
      <button v-if="review.samples.length" class="btn bare" @click="emit('estimate')">
        {{ t('missed.open') }}
      </button>
      <button v-if="missed.length" class="btn bare" @click="saveMissed">
        {{ t('save.missed') }}…
      </button>
      <button class="chip" :aria-pressed="missedFirst" @click="missedFirst = !missedFirst">
        {{ missedFirst ? t('coverage.missedFirst') : t('coverage.asBrought') }}
      </button>
      <button
        class="btn"
        :class="{ outline: !planned }"
        :aria-pressed="planned"
        @click="planned = !planned"
      >
        {{ t('plan.title') }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.head {
  align-items: flex-end;
  flex-wrap: wrap;
  gap: 6px 22px;
}

.big {
  font-size: 26px;
  font-weight: 600;
  line-height: 1.2;
}
</style>
