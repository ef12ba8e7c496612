<script setup lang="ts">
import { refDebounced, useStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Facet } from '@/api/client'
import { useReader } from '@/parts/reader'
import { useBench } from '@/state/bench'
import { taken } from '@/state/decide'
import { useReview } from '@/state/review'
import CandidateList from './CandidateList.vue'
import CountState from './CountState.vue'
import CoveringHeadings from './CoveringHeadings.vue'
import CandidatePanel from './CandidatePanel.vue'
import FacetTabs from './FacetTabs.vue'
import HarvestTools from './HarvestTools.vue'
import KeysDialog from './KeysDialog.vue'
import ListModes from './ListModes.vue'
import ListNote from './ListNote.vue'
import LookedAt from './LookedAt.vue'
import NoSample from './NoSample.vue'
import PlotFold from './PlotFold.vue'
import ProposeAnew from './ProposeAnew.vue'
import SaveMenu from './SaveMenu.vue'
import { useArriving } from './arriving'
import { useCandidates } from './candidates'
import * as charts from './charts'
import { useDeciding } from './deciding'
import { useFinding } from './finding'
import { useHarvestKeys } from './keys'
import { usePlotting } from './plotting'
import { shared, useTallies } from './tallies'
import { useWanted } from './wanted'

const { t } = useI18n()
const review = useReview()
const bench = useBench()
const reader = useReader()

const facet = useStorage<Facet>('tamiz-facet', 'words')
const wanted = useWanted()
const { words, filters, sort, pattern } = wanted
const { tallies, offered, current, tally, beyond, old, suits, proposing } = useTallies(
  facet,
  wanted,
)
const candidates = useCandidates(tally, facet, suits, wanted)
const { show, area, sortBy, counts, shown, all, asideHere, withAside } = candidates

const most = computed(() =>
  (current.value.data.value?.rows ?? []).reduce((m, r) => Math.max(m, r.records), 1),
)
const list = ref<InstanceType<typeof CandidateList>>()
const panel = ref<InstanceType<typeof CandidatePanel>>()
const decides = computed(() => taken.includes(facet.value))
const tools = ref<InstanceType<typeof HarvestTools>>()

const tree = useStorage('tamiz-heading-tree', false)

const { plotted, savePlot } = usePlotting()
const plots = computed(
  () =>
    !!tally.value &&
    ![...shared, 'years', 'journals'].includes(facet.value) &&
    !(facet.value === 'headings' && tree.value),
)
const help = ref(false)

const deciding = useDeciding({ all, shown, suits, list, panel })
const { selectedKey, selected, chosen, marked, anchor, dropping, suit, target, select } = deciding
const { addTo, begin, park, drop, back } = deciding
watch(facet, () => {
  wanted.clear()
  area.value = undefined
  selectedKey.value = undefined
})
watch(selected, (c) => c || bench.rest(undefined))
watch([show, facet, words, filters], () => (anchor.value = undefined))

const records = (c = selected.value) =>
  c && reader.list({ kind: 'item', facet: c.facet, item: c.item }, c.item)
const { onKey, all: keys } = useHarvestKeys(deciding, {
  decides,
  panel,
  records: () => records(),
  filter: () => tools.value?.focus(),
  help: () => (help.value = true),
})

const find = useFinding(candidates, wanted, select)
const teams = ref(false)

useArriving(facet, tally, find)

// Figures of what was looked at before give way when those of what is looked at now take their time.
const oldFor = refDebounced(old, 300)
</script>

<template>
  <div class="screen">
    <NoSample v-if="!review.sample" />
    <template v-else>
      <LookedAt
        :records="old ? undefined : tally?.looked"
        :contrast="old ? undefined : tally?.contrast"
        :counts="decides && !old ? counts : undefined"
      >
        <PlotFold v-if="plots" v-model="plotted" />
        <SaveMenu
          v-if="tally"
          :facet="facet"
          :decides="decides"
          @plot="savePlot(t(`facet.${facet}`), $event)"
        />
      </LookedAt>
      <FacetTabs v-model="facet" :offered="offered" :tally-of="(f) => tallies[f].data.value" />
      <CountState
        v-if="!tally || oldFor || !tally.looked"
        :tally="tally"
        :error="current.error.value"
      />
      <charts.YearsView v-else-if="facet === 'years'" :tally="tally" />
      <charts.SharesView v-else-if="shared.includes(facet)" :key="facet" :tally="tally" />
      <charts.JournalsView v-else-if="facet === 'journals'" :tally="tally" />
      <template v-else>
        <charts.CandidatePlot
          v-if="plots && plotted"
          ref="plot"
          :rows="all"
          :selected="selectedKey"
          :has-contrast="tally.contrast > 0"
          :area="area"
          @select="select"
          @area="area = $event"
        />
        <ListNote :tally="tally" />
        <CoveringHeadings v-if="facet === 'headings'" />
        <HarvestTools
          ref="tools"
          v-model:show="show"
          v-model:words="words"
          v-model:filters="filters"
          v-model:with-aside="withAside"
          :shown="shown.length"
          :beyond="beyond"
          :decides="decides"
          :has-contrast="tally.contrast > 0"
          :has-keys="tally.hasKeys"
          :refused="pattern.refused"
          :aside="asideHere"
          :proposing="proposing"
          @list="list?.focus()"
          @help="help = true"
        >
          <ListModes
            v-model:tree="tree"
            v-model:teams="teams"
            :tally="tally"
            :by-suit="!!tally.bySuit && !sort"
          />
          <ProposeAnew v-if="decides" />
        </HarvestTools>
        <div class="two">
          <charts.HeadingTree
            v-if="facet === 'headings' && tree"
            :selected="selected?.item"
            @find="find"
            @key="onKey"
          />
          <CandidateList
            v-else
            ref="list"
            :rows="shown"
            :selected="selectedKey"
            :marked="marked"
            :suits="suits"
            :sort="sort"
            :has-contrast="tally.contrast > 0"
            :has-keys="tally.hasKeys"
            :has-narrower="tally.hasNarrower"
            :most="most"
            :title="decides ? t(`harvest.title.${show}`) : t(`facet.${facet}`)"
            :blocks="decides ? Math.min(review.document.blocks.length, 3) : 0"
            @select="select"
            @open="records"
            @sort="sortBy"
            @key="onKey"
          />
          <charts.TeamsView v-if="facet === 'authors' && teams" @looked="facet = 'words'" />
          <CandidatePanel
            v-else-if="selected"
            ref="panel"
            :decides="decides"
            :candidate="selected"
            :chosen="chosen"
            :suit="suit"
            :target="target"
            :dropping="dropping"
            @add="addTo"
            @begin="begin"
            @park="park"
            @drop="drop"
            @back="back"
            @dropping="dropping = $event"
            @alone="anchor = undefined"
            @find="find"
          />
          <p v-else class="small none">
            {{ all.length ? t('harvest.nothingShown') : t('harvest.noItems') }}
          </p>
        </div>
      </template>
    </template>
    <KeysDialog v-model="help" :keys="keys" />
  </div>
</template>

<style scoped>
.screen {
  height: 100%;
  display: flex;
  flex-direction: column;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1.75fr) minmax(0, 1fr);
  gap: 14px;
  margin-top: 6px;
  flex: 1;
  min-height: 0;
}

.none {
  padding: 12px;
}

@media (max-width: 820px) {
  .screen {
    overflow-y: auto;
  }

  .two {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: 320px auto;
    flex: none;
  }
}
</style>
