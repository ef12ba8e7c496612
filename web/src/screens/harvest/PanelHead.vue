<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import BlockStamp from '@/parts/BlockStamp.vue'
import { dropReasons } from '@/state/decide'
import { useReview } from '@/state/review'
import type { Candidate } from './candidates'
import SampleMark from '@/parts/SampleMark.vue'

/** What an item is at one look: its records, what it is selected with, and what was decided about it, by whom and when. */
const props = defineProps<{ candidate: Candidate; chosen: Candidate[] }>()
const emit = defineEmits<{ records: []; alone: []; back: [] }>()
const { t, n, d } = useI18n()
const review = useReview()

const reasonText = (r: string) =>
  (dropReasons as readonly string[]).includes(r) || r === 'from-record' ? t(`reason.${r}`) : r
/** Who decided it, when, and in which sample: what is known of these. */
const decidedBy = computed(() => {
  const keys = props.candidate.forms ?? [props.candidate.key]
  const from = review.document.blocks
    .flatMap((b) => b.terms)
    .find(
      (term) => term.from?.facet === props.candidate.facet && keys.includes(term.from.item),
    )?.from
  const made = props.candidate.state === 'kept' ? from : props.candidate.decided
  const sample = review.samples.find((s) => s.id === made?.sample)?.name
  return [
    made?.who && t('panel.by', { who: made.who }),
    made?.at && `${d(new Date(made.at), 'short')}, ${d(new Date(made.at), 'time')}`,
    sample && t('panel.seenIn', { sample }),
  ]
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <div class="head">
    <h2 class="mono">{{ candidate.item }}</h2>
    <SampleMark />
    <button class="link small" @click="emit('records')">
      {{ t('panel.here', { n: n(candidate.row.records, 'whole') }, candidate.row.records) }}
    </button>
    <span v-if="candidate.row.contrastRecords !== undefined" class="small">{{
      t('panel.elsewhere', { n: n(candidate.row.contrastRecords, 'whole') })
    }}</span>
    <span v-if="candidate.row.central" class="small">{{
      t('panel.central', { n: n(candidate.row.central, 'whole') })
    }}</span>
  </div>
  <div v-if="chosen.length > 1" class="several" role="status">
    <b>{{ t('marked.title', { n: chosen.length }) }}</b>{{ ' ' }}
    <button class="btn bare" @click="emit('alone')">{{ t('marked.clear') }}</button>
    <p class="small">{{ t('marked.text') }}</p>
    <p class="mono small">
      {{
        chosen
          .slice(0, 12)
          .map((c) => c.item)
          .join(', ')
      }}{{ chosen.length > 12 ? ' …' : '' }}
    </p>
  </div>
  <div v-if="candidate.state !== 'open'" class="decided">
    <template v-if="candidate.state === 'kept'"
      ><BlockStamp v-for="b in candidate.blocks" :key="b" :block="b" />
      {{ t('panel.kept') }}</template
    >
    <span v-else
      >{{ t(`panel.${candidate.state}`)
      }}<template v-if="candidate.reason">: {{ reasonText(candidate.reason) }}</template></span
    >
    <span v-if="decidedBy" class="small">{{ decidedBy }}</span>
    <button class="btn bare" @click="emit('back')">{{ t('act.takeBack') }} <kbd>Z</kbd></button>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
}

h2 {
  font-size: 15px;
  font-weight: 700;
  overflow-wrap: anywhere;
  max-height: 4.2em;
  overflow-y: auto;
}

.link {
  text-decoration: underline;
  text-decoration-color: var(--sand);
  text-underline-offset: 2px;
}

.decided {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-top: 6px;
}

.decided .btn {
  margin-left: auto;
}

.several {
  margin-top: 8px;
  padding: 7px 10px;
  background: var(--gold-soft);
  border-radius: var(--radius);
}
</style>
