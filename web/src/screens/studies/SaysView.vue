<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useProblem } from '@/state/problem'
import JournalsRead from './JournalsRead.vue'
import LeftInRounds from './LeftInRounds.vue'
import { useSaid } from './said'

/** What the ways of finding say of the search: recall by origin, how much is missed that nobody knows, what rounds still bring. */
const { t, n } = useI18n()
const problem = useProblem()
const said = useSaid()
const pair = (x: { low: number; high: number }) => ({
  low: Math.round(x.low * 100),
  high: n(x.high, 'share'),
})
</script>

<template>
  <div class="says">
    <p v-if="said.error.value" class="wrong" role="alert">{{ problem(said.error.value) }}</p>
    <template v-if="said.data.value">
      <section class="card" :aria-label="t('found.byOrigin')">
        <h2 class="sect">{{ t('found.byOrigin') }}</h2>
        <p v-if="said.data.value.draft" class="wrong" role="note">{{ t('found.draft') }}</p>
        <p v-if="!said.data.value.origins.length" class="small">{{ t('coverage.emptyTitle') }}</p>
        <table v-else class="figures">
          <thead>
            <tr>
              <th class="left">{{ t('found.cameBy') }}</th>
              <th>{{ t('found.keysHead') }}</th>
              <th>{{ t('keys.caught') }}</th>
              <th>{{ t('found.interval') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="o in said.data.value.origins" :key="o.way">
              <td class="left">{{ t(`found.came.${o.way || 'unknown'}`) }}</td>
              <td>
                {{ o.keys }}
                <span v-if="o.away" class="small">{{ t('found.away', { n: o.away }) }}</span>
              </td>
              <td>
                <template v-if="o.keys">{{
                  t('found.ofKeys', { n: o.caught, share: n(o.caught / o.keys, 'share') })
                }}</template>
              </td>
              <td>{{ o.keys ? t('found.lowHigh', pair(o)) : '' }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <div class="stack">
        <section class="card" :aria-label="t('found.captures')">
          <h2 class="sect">{{ t('found.captures') }}</h2>
          <template v-if="said.data.value.captures">
            <div class="big display">
              {{ n(said.data.value.captures.total, 'whole') }}
              <span class="small">{{
                t('found.capturesInterval', {
                  low: n(said.data.value.captures.low, 'whole'),
                  high: n(said.data.value.captures.high, 'whole'),
                })
              }}</span>
            </div>
            <p>{{ t('found.capturesText', { ...said.data.value.captures }) }}</p>
            <p v-if="said.data.value.captures.few" class="wrong" role="note">
              {{ t('found.capturesFew', { n: said.data.value.captures.both }) }}
            </p>
            <p class="small">{{ t('found.capturesWarn') }}</p>
          </template>
          <p v-else class="small">{{ t('found.capturesNone') }}</p>
        </section>
        <LeftInRounds v-if="said.data.value.left" :left="said.data.value.left" />
      </div>
      <section class="card wide" :aria-label="t('found.flow')">
        <h2 class="sect">{{ t('found.flow') }}</h2>
        <p v-if="!said.data.value.rounds.length" class="small">{{ t('found.noneYetText') }}</p>
        <div v-else class="scroll" tabindex="0" role="group" :aria-label="t('found.flow')">
          <table class="figures">
            <thead>
              <tr>
                <th>
                  <span class="visually-hidden">{{ t('found.number') }}</span>
                </th>
                <th class="left">{{ t('found.way') }}</th>
                <th>{{ t('found.flowAll') }}</th>
                <th>{{ t('found.flowKnown') }}</th>
                <th>{{ t('found.flowNew') }}</th>
                <th>{{ t('found.flowJudged') }}</th>
                <th>{{ t('found.flowBelongs') }}</th>
                <th>{{ t('found.flowKeys') }}</th>
                <th>{{ t('found.flowMissed') }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="r in said.data.value.rounds" :key="r.number">
                <td>{{ r.number }}</td>
                <td class="left">
                  {{ t(`found.ways.${r.way}`) }} <span class="small">{{ r.name }}</span>
                </td>
                <td>{{ n(r.all, 'whole') }}</td>
                <td>{{ n(r.known, 'whole') }}</td>
                <td>{{ n(r.new, 'whole') }}</td>
                <td>{{ n(r.judged, 'whole') }}</td>
                <td>
                  {{ n(r.belongs, 'whole')
                  }}<span v-if="r.share" class="small share">{{ n(r.share.value, 'share') }}</span>
                </td>
                <td>{{ n(r.keys, 'whole') }}</td>
                <td>{{ n(r.missed, 'whole') }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="said.data.value.rounds.some((r) => r.judged && r.judged < r.new)" class="small">
          {{ t('found.inOrder') }}
        </p>
        <p v-if="said.data.value.next">
          {{
            t('found.next', {
              round: n(said.data.value.next.round, 'one'),
              all: n(said.data.value.next.all, 'one'),
            })
          }}
        </p>
        <p v-else-if="said.data.value.rounds.length" class="small">{{ t('found.nextNone') }}</p>
      </section>
      <JournalsRead v-if="said.data.value.journals.length" :journals="said.data.value.journals" />
    </template>
  </div>
</template>

<style scoped>
.says {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(330px, 1fr));
  gap: 14px;
  align-content: start;
}

.card {
  padding: 12px 14px;
  min-width: 0;
}

.stack {
  display: grid;
  gap: 14px;
  align-content: start;
}

.wide {
  grid-column: 1 / -1;
}

.scroll {
  overflow-x: auto;
}

.share {
  margin-left: 6px;
}

.big {
  font-size: 26px;
  font-weight: 600;
}

.wrong {
  color: var(--miss);
}
</style>
