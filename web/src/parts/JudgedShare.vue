<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Judging } from '@/api/client'

/** What judgements come to: the share that is relevant, with its interval, and how many are read for each. */
const props = defineProps<{ judging: Judging }>()
const { t, n } = useI18n()

const judged = computed(() => props.judging.relevant + props.judging.not)
const counts = computed(() =>
  [
    t('judge.nRelevant', { n: props.judging.relevant }),
    t('judge.nNot', { n: props.judging.not }),
    t('judge.nUnsure', { n: props.judging.unsure }),
  ].join(', '),
)
const share = computed(() => props.judging.share)
const reading = computed(() => {
  const r = props.judging.toRead
  if (!r) return ''
  return r.high === undefined
    ? t('judge.toReadFrom', { n: n(r.value, 'one'), low: n(r.low, 'one') })
    : t('judge.toRead', { n: n(r.value, 'one'), low: n(r.low, 'one'), high: n(r.high, 'one') })
})
</script>

<template>
  <div class="share" role="status">
    <p>
      {{
        t(
          'judge.drawn',
          { n: judging.records.length, of: n(judging.total, 'whole') },
          judging.records.length,
        )
      }}
      <b>{{ counts }}</b>
    </p>
    <template v-if="share && judged">
      <div class="bar" aria-hidden="true">
        <i
          class="within"
          :style="{
            left: `${share.low * 100}%`,
            width: `${((share.high ?? 1) - share.low) * 100}%`,
          }"
        /><i class="at" :style="{ left: `${share.value * 100}%` }" />
      </div>
      <p class="small">
        {{
          t('judge.share', {
            share: n(share.value, 'share'),
            low: Math.round(share.low * 100),
            high: n(share.high ?? 1, 'share'),
          })
        }}
        {{ reading }}
      </p>
    </template>
  </div>
</template>

<style scoped>
.share {
  padding: 8px 16px 6px;
}

.bar {
  position: relative;
  height: 12px;
  margin: 5px 0 3px;
  background: var(--line-soft);
  border-radius: 3px;
}

.within {
  position: absolute;
  inset-block: 0;
  background: color-mix(in srgb, var(--gold-bright) 55%, transparent);
  border-radius: 2px;
}

.at {
  position: absolute;
  inset-block: -3px;
  width: 2px;
  background: var(--gold-deep);
}
</style>
