<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Bench } from '@/api/client'
import { useBench } from '@/state/bench'
import { useReader } from '@/parts/reader'
import { useReview } from '@/state/review'
import { limitText } from './limitText'
import { signedWith } from './signed'

/** The limits, and what each takes away. */
defineProps<{ limits: Bench['limits'] }>()

const { t, n } = useI18n()
const review = useReview()
const bench = useBench()
const reader = useReader()
const signed = signedWith(n)

function limitOf(kind: string): string {
  // A limit that is only rested on stands in no document yet.
  const ahead = bench.resting?.edits.flatMap((op) => (op.op === 'limits' ? op.limits : [])) ?? []
  const l =
    ahead.find((x) => x.kind === kind) ?? review.document.limits.find((x) => x.kind === kind)
  return l ? limitText(l, t) : ''
}
</script>

<template>
  <dl class="limits">
    <div v-for="l in limits" :key="l.kind">
      <dt class="small">{{ t('bench.limit') }}</dt>
      <dd class="cut" :title="limitOf(l.kind)">{{ limitOf(l.kind) }}</dd>
      <dd v-if="l.takenAway && !bench.resting">
        <button
          class="link"
          :title="t('bench.openRecords')"
          @click="
            reader.list(
              { kind: 'limit', limit: l.kind, away: true },
              t('looked.awayTitle', { what: t(`coverage.limit.${l.kind}`) }),
            )
          "
        >
          {{ signed(-l.takenAway) }}
        </button>
      </dd>
      <dd v-else-if="l.takenAway !== undefined">{{ l.takenAway ? signed(-l.takenAway) : '0' }}</dd>
    </div>
  </dl>
</template>

<style scoped>
.limits {
  padding-top: 10px;
}

.limits div {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 8px;
  align-items: baseline;
  padding: 3px 0;
}

dd {
  margin: 0;
}
</style>
