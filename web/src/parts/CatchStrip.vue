<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import type { Mark } from '@/state/bench'
import { useReview } from '@/state/review'

/** One mark for each key study, in the same order everywhere: told by shape, never by colour alone. */
const props = defineProps<{ marks: Mark[]; label: string }>()

const { t } = useI18n()
const review = useReview()
const router = useRouter()

const summary = computed(() => {
  const n = (m: Mark) => props.marks.filter((x) => x === m).length
  return (
    t('strip.summary', {
      what: props.label,
      caught: n('caught'),
      missed: n('missed'),
      would: n('would'),
    }) + (n('away') ? `, ${t('strip.awayCount', { n: n('away') })}` : '')
  )
})

function open(i: number) {
  const study = review.keyStudies[i]
  if (study)
    void router.push({
      name: 'coverage',
      params: { review: review.id },
      query: { study: study.id },
    })
}
</script>

<template>
  <div class="strip" role="img" :aria-label="summary">
    <i
      v-for="(mark, i) in marks"
      :key="i"
      :class="mark"
      :title="`${review.keyStudies[i]?.title ?? ''} – ${t('strip.' + mark)}`"
      @click="open(i)"
    />
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 2.6px;
  row-gap: 4px;
  margin-top: 8px;
}

.strip i {
  width: 7.6px;
  height: 14px;
  border-radius: 2px;
  background: var(--ink);
  cursor: pointer;
}

.strip i.missed {
  background: transparent;
  border: 1.5px solid var(--miss);
}

.strip i.would {
  background: var(--gold-bright);
  box-shadow:
    0 0 0 1.5px var(--card),
    0 0 0 3px var(--gold-bright);
}

.strip i.away {
  background: repeating-linear-gradient(135deg, #c9bfa9 0 1.6px, transparent 1.6px 3.6px);
  border: 1px solid #c9bfa9;
}

.strip i:hover {
  outline: 1.5px solid var(--ink);
  outline-offset: 1px;
}
</style>
