<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Limit, Tally, TallyRow } from '@/api/client'
import { limitText } from '@/parts/limitText'
import { useSources } from '@/state/sources'
import { useAskedEach } from './askedEach'
import ChartButtons from './ChartButtons.vue'
import LimitCost from './LimitCost.vue'
import { byHeadings, limitedTo, othersThan, useLimit } from './limits'
import SaidTable from './SaidTable.vue'
import SharesChart from './SharesChart.vue'
import SharesTable from './SharesTable.vue'

/**
 * Types, languages, countries, ages or humans: how much of what is looked at each takes, and what a limit to it would lose. One
 * that goes by headings may also keep out what carries another, so that what nobody has indexed stays inside.
 */
const props = defineProps<{ tally: Tally }>()

const { t, n } = useI18n()
const kind = computed(() => props.tally.facet as Limit['kind'])
const sources = useSources()
const { resting, set, limit, editsOf } = useLimit(props.tally.facet as Limit['kind'])

const rows = computed(() =>
  [...props.tally.rows].sort((a, b) => b.records - a.records || a.item.localeCompare(b.item)),
)
const chosen = ref<TallyRow>()
const at = ref<TallyRow>()
const shown = computed(() => at.value ?? chosen.value)
const chart = ref<InstanceType<typeof SharesChart>>()
const limited = (item: string) => limitedTo(set.value, item)

const headed = computed(() => byHeadings(kind.value) && props.tally.rows.length > 1)
const keepsOut = ref(
  set.value ? !!set.value.against?.length : kind.value === 'humans' && headed.value,
)
function limitTo(item: string): Limit {
  const values = [...(set.value?.values ?? []), item]
  const others = othersThan(
    values,
    props.tally.rows.map((r) => r.item),
  )
  const out = headed.value && keepsOut.value && others.length > 0
  return {
    kind: kind.value,
    values,
    titles: set.value?.titles,
    ...(out ? { against: others } : {}),
  }
}

const open = computed(() => rows.value.filter((r) => !limited(r.item)).map((r) => r.item))
const each = useAskedEach(open, (item) => editsOf(limitTo(item)))

function rest(r?: TallyRow) {
  at.value = r
  const on = r ?? chosen.value
  resting.value = on && !limited(on.item) ? limitTo(on.item) : undefined
}
function setLimit() {
  if (!chosen.value) return
  const to = limitTo(chosen.value.item)
  limit(to, limitText(to, t))
}
</script>

<template>
  <div class="from-above">
    <div class="main">
      <SharesTable
        v-model:chosen="chosen"
        :tally="tally"
        :rows="rows"
        :limited="limited"
        :there="each.found.value"
        :source="sources.chosen?.name ?? ''"
        @rest="rest"
      />
      <p v-if="byHeadings(kind) && !rows.length" class="small note">{{ t('shape.noHeadings') }}</p>
      <p v-if="sources.chosen && open.length" class="small note each">
        <button class="link" :disabled="each.asking.value" @click="each.on.value = true">
          {{ t('shape.askEach', { source: sources.chosen.name }) }}
        </button>
        <span role="status">
          <template v-if="each.now.value !== undefined">
            {{
              t('shape.eachNow', {
                source: sources.chosen.name,
                n: n(each.now.value, 'whole'),
              })
            }}
            <template v-if="open.length > each.most">{{
              t('shape.eachFirst', { n: each.most })
            }}</template></template
          >
          <template v-if="each.asking.value">{{ t('shape.counting') }}</template>
          <span v-if="each.problem.value" class="wrong">{{ each.problem.value }}</span>
        </span>
      </p>
      <SaidTable :tally="tally" />
      <SharesChart ref="chart" :rows="rows" />
    </div>
    <aside>
      <template v-if="shown?.loses">
        <LimitCost
          :title="t(headed && keepsOut ? 'shape.losesOut' : 'shape.loses', { item: shown.item })"
          :loss="shown.loses"
          :tally="tally"
          :item="shown.item"
          :keeps-out="headed && keepsOut"
          :resting="resting !== undefined"
        />
        <p v-if="kind === 'countries'" class="small note">{{ t('shape.rareCountries') }}</p>
        <fieldset v-if="headed && chosen && !limited(chosen.item)" class="how small">
          <legend class="hidden">{{ t('shape.how') }}</legend>
          <label v-for="out in [true, false]" :key="String(out)">
            <input v-model="keepsOut" type="radio" :value="out" @change="rest()" />
            {{ t(out ? 'shape.keepOut' : 'shape.letIn', { item: chosen.item }) }}
          </label>
        </fieldset>
        <button v-if="chosen && !limited(chosen.item)" class="btn outline" @click="setLimit">
          {{ t(set?.values?.length ? 'shape.add' : 'shape.limit', { item: chosen.item }) }}
        </button>
      </template>
      <p v-else class="small">{{ t('shape.hover') }}</p>
      <p v-if="tally.missing" class="small note">
        {{ t('shape.missingText', { n: n(tally.missing, 'whole') }, tally.missing) }}
      </p>
      <button v-if="set" class="btn bare" @click="limit(undefined, limitText(set, t))">
        {{ t('shape.take') }}: {{ limitText(set, t) }}
      </button>
      <ChartButtons :name="t(`facet.${kind}`)" :svg="() => chart?.drawn" />
    </aside>
  </div>
</template>

<style scoped>
.note {
  margin-top: 8px;
}

.each {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
}

.wrong {
  color: var(--miss);
}

.how {
  display: grid;
  gap: 4px;
  margin-top: 10px;
  border: 0;
  padding: 0;
}

.how label {
  display: flex;
  gap: 6px;
  align-items: flex-start;
}

.how input {
  margin: 2px 0 0;
}

.btn {
  margin-top: 10px;
  white-space: normal;
  text-align: left;
}

.hidden {
  position: absolute;
  left: -9999px;
}
</style>
