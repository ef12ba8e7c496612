<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { ReadByHand } from '@/api/client'
import { useReview } from '@/state/review'

/** Journals that are read by hand, volume by volume: how far each was looked at, by whom and when. */
defineProps<{ journals: ReadByHand[] }>()
const { t, n, d } = useI18n()
const review = useReview()

const through = (j: ReadByHand) => ({
  name: 'studies',
  params: { review: review.id },
  query: { way: 'journal', name: j.journal },
})
const read = (j: ReadByHand) => ({
  name: 'studies',
  params: { review: review.id },
  query: { round: j.rounds.at(-1), order: 'year' },
})
</script>

<template>
  <section class="card wide" :aria-label="t('found.byHand')">
    <h2 class="sect">{{ t('found.byHand') }}</h2>
    <table class="figures">
      <thead>
        <tr>
          <th class="left">{{ t('found.journal') }}</th>
          <th class="left">{{ t('found.volume') }}</th>
          <th>{{ t('found.worksHead') }}</th>
          <th>{{ t('found.flowJudged') }}</th>
          <th>{{ t('found.flowBelongs') }}</th>
          <th class="left">{{ t('found.byWhom') }}</th>
        </tr>
      </thead>
      <tbody v-for="j in journals" :key="j.journal">
        <tr v-if="!j.volumes.length">
          <td class="left">
            <b>{{ j.journal }}</b>
          </td>
          <td class="left small" colspan="5">
            {{ t('found.notLooked') }}
            <router-link class="link" :to="through(j)">{{ t('journals.through') }}</router-link>
          </td>
        </tr>
        <tr v-for="(v, i) in j.volumes" :key="`${v.year} ${v.volume}`">
          <td class="left">
            <template v-if="!i">
              <b>{{ j.journal }}</b>
              <router-link class="link small read" :to="read(j)">{{
                t('found.readIt')
              }}</router-link>
            </template>
          </td>
          <td class="left">
            {{ v.volume ? t('found.volumeOf', { ...v }) : v.year || t('found.noYear') }}
          </td>
          <td>{{ n(v.works, 'whole') }}</td>
          <td>
            {{ n(v.judged, 'whole') }}<b v-if="v.judged === v.works" class="all"> ✓</b
            ><span v-if="v.judged === v.works" class="visually-hidden">{{
              t('found.allRead')
            }}</span>
          </td>
          <td>{{ n(v.belongs, 'whole') }}</td>
          <td class="left small">
            {{ [v.who.join(', '), v.last && d(v.last, 'day')].filter(Boolean).join(', ') }}
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.card {
  padding: 12px 14px;
  min-width: 0;
}

.wide {
  grid-column: 1 / -1;
}

.read {
  margin-left: 10px;
}

.all {
  color: var(--gold-deep);
}
</style>
