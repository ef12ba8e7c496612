<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Round } from '@/api/client'
import { figures } from '@/figures'
import { useAct } from '@/state/act'
import { useReview } from '@/state/review'
import LostDialog from './LostDialog.vue'

/** The rounds so far: how far each is, what it brought, what could not be had. One can be looked at by itself. */
defineProps<{ rounds: Round[]; chosen: number; asking: boolean }>()
const emit = defineEmits<{ choose: [number: number]; ask: [] }>()
const { t, n, d } = useI18n()
const review = useReview()
const act = useAct(figures.rounds, figures.found)
const lost = ref<Round>()

const at = (id: number) => ({ params: { path: { review: review.id, round: id } } })
const stop = (r: Round) => act(ask(api.POST('/api/reviews/{review}/rounds/{round}/stop', at(r.id))))
const goOn = (r: Round) =>
  act(ask(api.POST('/api/reviews/{review}/rounds/{round}/go-on', at(r.id))))
const going = (r: Round) => ['waiting', 'going', 'stopping'].includes(r.state)
</script>

<template>
  <section class="rounds" :aria-label="t('found.rounds')">
    <div class="row">
      <h2 class="sect">{{ t('found.rounds') }}</h2>
      <span class="grow" />
      <button v-if="chosen" class="btn bare" @click="emit('choose', 0)">
        {{ t('found.allRounds') }}
      </button>
      <button class="btn" :class="{ outline: asking }" :aria-pressed="asking" @click="emit('ask')">
        {{ t('found.another') }}
      </button>
    </div>
    <div class="list" tabindex="0" :aria-label="t('found.rounds')" role="group">
      <table class="figures">
        <thead>
          <tr>
            <th>
              <span class="visually-hidden">{{ t('found.number') }}</span>
            </th>
            <th class="left">{{ t('found.way') }}</th>
            <th class="left">{{ t('found.state') }}</th>
            <th>{{ t('found.worksHead') }}</th>
            <th>{{ t('found.lostHead') }}</th>
            <th>{{ t('found.requests') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in [...rounds].reverse()" :key="r.id" :class="{ on: r.number === chosen }">
            <td>{{ r.number }}</td>
            <td class="left">
              <button
                class="link"
                :aria-pressed="r.number === chosen"
                @click="emit('choose', r.number === chosen ? 0 : r.number)"
              >
                {{ t(`found.ways.${r.way}`) }}
              </button>
              <span class="small"
                >{{ r.name
                }}<template v-if="r.sources.length">, {{ r.sources.join(', ') }}</template></span
              >
              <span v-for="(x, i) in r.notes" :key="i" class="small note">{{
                t(`found.note.${x.kind}`, {
                  what: x.what ?? '',
                  total: n(x.total ?? 0, 'whole'),
                  taken: n(x.taken ?? 0, 'whole'),
                })
              }}</span>
              <span v-if="r.problem" class="small wrong" role="alert">{{ r.problem.title }}</span>
            </td>
            <td class="left state" :aria-live="going(r) ? 'polite' : undefined">
              <span class="small">{{
                r.state === 'done' && r.ended ? d(r.ended, 'day') : t(`found.states.${r.state}`)
              }}</span>
              <button v-if="going(r)" class="btn bare" @click="stop(r)">
                {{ t('found.stop') }}
              </button>
              <button v-else-if="r.state !== 'done'" class="btn bare" @click="goOn(r)">
                {{ t('found.goOn') }}
              </button>
            </td>
            <td>{{ n(r.works, 'whole') }}</td>
            <td>
              <button v-if="r.lost" class="link" :title="t('found.lostOpen')" @click="lost = r">
                {{ n(r.lost, 'whole') }}
              </button>
              <template v-else>0</template>
            </td>
            <td>{{ n(r.requests, 'whole') }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <LostDialog v-if="lost" :round="lost" @close="lost = undefined" />
  </section>
</template>

<style scoped>
.list {
  max-height: 168px;
  overflow-y: auto;
}

tr.on td {
  background: var(--gold-soft);
}

.left > .small {
  display: inline-block;
  margin-left: 6px;
}

.note {
  color: var(--gold-deep);
}

.state {
  white-space: nowrap;
}

.wrong {
  color: var(--miss);
}
</style>
