<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { figures, useFigure } from '@/figures'
import EmptyState from '@/parts/EmptyState.vue'
import { useReader } from '@/parts/reader'
import { useProblem } from '@/state/problem'
import NetworkPicture from './NetworkPicture.vue'

/** Who cites whom over the years, as a picture and as a table: key studies are squares, those the strategy misses are hollow. */
const { t, n } = useI18n()
const reader = useReader()
const problem = useProblem()

const network = useFigure(figures.network, () => null, { keep: true })
const works = computed(() => network.data.value?.works ?? [])
const links = computed(() => network.data.value?.links ?? [])
const here = ref<number>()
const picture = useTemplateRef('picture')

const rows = computed(() => {
  const cites = works.value.map(() => 0)
  for (const [from] of links.value) cites[from!]!++
  return works.value
    .map((w, i) => ({ ...w, i, cites: cites[i]! }))
    .sort((a, b) => b.cited + b.cites - (a.cited + a.cites))
})
const several = 40
const shown = ref(several)
const open = (i: number) => reader.one(works.value[i]!.record.id, works.value[i]!.record.title)
</script>

<template>
  <div>
    <p v-if="network.error.value" class="wrong" role="alert">{{ problem(network.error.value) }}</p>
    <EmptyState
      v-else-if="network.data.value && !links.length"
      :title="t('found.noLinks')"
      :text="t('found.noneYetText')"
    />
    <template v-else-if="network.data.value">
      <div class="row head">
        <p class="small">
          {{
            t('found.network', {
              works: n(works.length, 'whole'),
              of: n(network.data.value.of, 'whole'),
              links: n(links.length, 'whole'),
            })
          }}
        </p>
        <span class="grow" />
        <span class="row small legend">
          <i class="key" />{{ t('found.legendKey') }} <i class="key hollow" />{{
            t('found.legendMissed')
          }}
          <i class="dot" />{{ t('found.legendWork') }} <i class="dot hollow" />{{
            t('found.legendWorkMissed')
          }}
        </span>
        <button class="btn outline" :aria-label="t('found.larger')" @click="picture?.larger(1.4)">
          +
        </button>
        <button
          class="btn outline"
          :aria-label="t('found.smaller')"
          @click="picture?.larger(1 / 1.4)"
        >
          −
        </button>
        <button class="btn bare" @click="picture?.whole()">{{ t('found.wholePicture') }}</button>
      </div>
      <NetworkPicture ref="picture" v-model="here" :works="works" :links="links" @open="open" />
      <p class="small told" aria-hidden="true">
        <template v-if="here !== undefined"
          ><b>{{ works[here]!.record.title }}</b> {{ works[here]!.record.byline }}
          {{ works[here]!.record.year || '' }},
          {{ t('found.citedHere', { n: works[here]!.cited }, works[here]!.cited) }}</template
        >
        <template v-else>{{ t('found.pointAt') }}</template>
      </p>
      <table class="figures">
        <thead>
          <tr>
            <th class="left">{{ t('found.worksHead') }}</th>
            <th>{{ t('keys.year') }}</th>
            <th>{{ t('found.cites') }}</th>
            <th>{{ t('found.citedBy') }}</th>
            <th class="left">{{ t('found.isWhat') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="w in rows.slice(0, shown)"
            :key="w.record.id"
            @pointerenter="here = w.i"
            @pointerleave="here = undefined"
          >
            <td class="left">
              <button class="link" @click="open(w.i)">{{ w.record.title }}</button>
              <div class="small">{{ w.record.byline }}</div>
            </td>
            <td>{{ w.record.year || '–' }}</td>
            <td>{{ w.cites }}</td>
            <td>{{ w.cited }}</td>
            <td class="left small">
              {{ w.verdict ? t(`found.verdict.${w.verdict}`) : t('found.verdict.open') }},
              {{ t(w.caught ? 'strip.caught' : 'strip.missed') }}
            </td>
          </tr>
        </tbody>
      </table>
      <button v-if="rows.length > shown" class="btn bare" @click="shown += several">
        {{ t('found.more', { n: n(rows.length - shown, 'whole') }) }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.head {
  flex-wrap: wrap;
  gap: 4px 10px;
}

.legend {
  gap: 4px 6px;
  flex-wrap: wrap;
}

.legend i {
  width: 11px;
  height: 11px;
  display: inline-block;
  background: var(--ink);
  border: 1.5px solid var(--ink);
  margin-left: 6px;
}

.legend .key {
  border-radius: 3px;
}

.legend .dot {
  border-radius: 50%;
  background: var(--ink-3);
  border-color: var(--ink-3);
}

.legend .hollow {
  background: none;
  border-color: var(--miss);
}

.told {
  min-height: 20px;
}

.wrong {
  color: var(--miss);
}
</style>
