<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Limit, Tally, TallyRow } from '@/api/client'
import { useReader } from '@/parts/reader'
import ChartButtons from './ChartButtons.vue'
import LimitCost from './LimitCost.vue'
import { useLimit } from './limits'
import SaferLimit from './SaferLimit.vue'

/** Types, languages or countries: how much of what is looked at each takes, and what a limit to it would lose. */
const props = defineProps<{ tally: Tally }>()

const { t, n } = useI18n()
const reader = useReader()
const facet = computed(() => props.tally.facet)
const kind = computed(() => facet.value as Limit['kind'])
const { resting, set, limit } = useLimit(props.tally.facet as Limit['kind'])

const rows = computed(() =>
  [...props.tally.rows].sort((a, b) => b.records - a.records || a.item.localeCompare(b.item)),
)
const most = computed(() => Math.max(1, props.tally.missing, ...rows.value.map((r) => r.records)))
const chosen = ref<TallyRow>()
const at = ref<TallyRow>()
const shown = computed(() => at.value ?? chosen.value)
const holder = ref<SVGSVGElement>()

const ways = ['typed', 'titled', 'both', 'either'] as const
const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase()
const limited = (item: string) => set.value?.values?.some((v) => same(v, item)) ?? false

function rest(r: TallyRow | undefined) {
  at.value = r
  const on = r ?? chosen.value
  resting.value =
    on && !limited(on.item)
      ? {
          kind: kind.value,
          values: [...(set.value?.values ?? []), on.item],
          titles: set.value?.titles,
        }
      : undefined
}
function choose(r: TallyRow) {
  chosen.value = chosen.value?.item === r.item ? undefined : r
  rest(undefined)
}

function set_() {
  const r = chosen.value
  if (!r) return
  limit(
    {
      kind: kind.value,
      values: [...(set.value?.values ?? []), r.item],
      titles: set.value?.titles,
    },
    [...(set.value?.values ?? []), r.item].join(', '),
  )
}
const limitName = (l: Limit) =>
  [...(l.values ?? []), ...(l.titles?.length ? [t('shape.orTitles')] : [])].join(', ')
/** A kind of which the title may say it: its words are open to be changed before the limit is set. */
const safer = ref<NonNullable<Tally['said']>[number]>()
const records = (r: TallyRow) =>
  reader.list({ kind: 'item', facet: facet.value, item: r.item }, r.item)
const chartRows = computed(() => rows.value.slice(0, 30))
</script>

<template>
  <div class="from-above">
    <div class="main">
      <table class="shares">
        <thead>
          <tr>
            <th scope="col">{{ t(`shape.item.${facet}`) }}</th>
            <th scope="col" class="fig">{{ t('figure.records') }}</th>
            <th scope="col" class="fig">{{ t('shape.share') }}</th>
            <th v-if="tally.contrast" scope="col" class="fig">{{ t('shape.contrastShare') }}</th>
            <th v-if="tally.hasKeys" scope="col" class="fig">{{ t('figure.keys') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="r in rows"
            :key="r.item"
            :class="{ on: chosen?.item === r.item, limited: limited(r.item) }"
            @mouseenter="rest(r)"
            @mouseleave="rest(undefined)"
          >
            <th scope="row">
              <button
                :aria-pressed="chosen?.item === r.item"
                @click="choose(r)"
                @focus="rest(r)"
                @blur="rest(undefined)"
              >
                <i :style="{ width: `${(r.records / most) * 100}%` }" /><span class="cut">{{
                  r.item
                }}</span>
              </button>
            </th>
            <td class="fig">
              <button class="link" @click="records(r)">{{ n(r.records, 'whole') }}</button>
            </td>
            <td class="fig">{{ n(r.share, 'share') }}</td>
            <td v-if="tally.contrast" class="fig">{{ n(r.contrastShare ?? 0, 'share') }}</td>
            <td v-if="tally.hasKeys" class="fig">{{ r.keys }}</td>
          </tr>
          <tr v-if="tally.missing" class="missing">
            <th scope="row">
              <span class="row"
                ><i :style="{ width: `${(tally.missing / most) * 100}%` }" /><span>{{
                  t('shape.missing')
                }}</span></span
              >
            </th>
            <td class="fig">
              <button
                class="link"
                @click="
                  reader.list({ kind: 'aspect', facet, aspect: 'missing' }, t('shape.missing'))
                "
              >
                {{ n(tally.missing, 'whole') }}
              </button>
            </td>
            <td class="fig">{{ n(tally.missingShare, 'share') }}</td>
            <td v-if="tally.contrast" />
            <td v-if="tally.hasKeys" class="fig">{{ tally.missingKeys }}</td>
          </tr>
        </tbody>
      </table>
      <template v-if="tally.said?.some((s) => s.either)">
        <h2 class="head">{{ t('shape.said') }}</h2>
        <p class="small">{{ t('shape.saidText') }}</p>
        <table class="said">
          <thead>
            <tr>
              <td />
              <th v-for="c in ways" :key="c" scope="col" class="fig">{{ t(`shape.${c}`) }}</th>
              <td />
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in tally.said" :key="s.kind">
              <th scope="row">{{ t(`shape.kind.${s.kind}`) }}</th>
              <td v-for="how in ways" :key="how" class="fig" :class="{ strong: how === 'either' }">
                <button
                  v-if="s[how]"
                  class="link"
                  @click="
                    reader.list(
                      { kind: 'aspect', facet: 'types', item: s.kind, aspect: how },
                      t(`looked.said.${how}`, { kind: t(`shape.kind.${s.kind}`) }),
                    )
                  "
                >
                  {{ n(s[how], 'whole') }}</button><template v-else>0</template>
              </td>
              <td>
                <button v-if="s.either" class="link small" @click="safer = s">
                  {{ t('shape.saferOpen') }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </template>
      <SaferLimit v-if="safer" :said="safer" @close="safer = undefined" />
      <svg
        ref="holder"
        class="hidden"
        aria-hidden="true"
        width="640"
        :height="chartRows.length * 24 + 8"
        :viewBox="`0 0 640 ${chartRows.length * 24 + 8}`"
      >
        <g v-for="(r, i) in chartRows" :key="r.item" font-family="sans-serif" font-size="13">
          <text x="196" :y="i * 24 + 19" text-anchor="end">{{ r.item.slice(0, 30) }}</text>
          <rect
            x="204"
            :y="i * 24 + 6"
            :width="(r.records / most) * 360"
            height="16"
            fill="#6b2d5c"
          />
          <text :x="212 + (r.records / most) * 360" :y="i * 24 + 19">
            {{ n(r.records, 'whole') }}
          </text>
        </g>
      </svg>
    </div>
    <aside>
      <template v-if="shown?.loses">
        <LimitCost
          :title="t('shape.loses', { item: shown.item })"
          :loss="shown.loses"
          :tally="tally"
          :item="shown.item"
          :resting="resting !== undefined"
        />
        <p v-if="kind === 'countries'" class="small note">{{ t('shape.rareCountries') }}</p>
        <button v-if="chosen && !limited(chosen.item)" class="btn outline" @click="set_">
          {{ t(set?.values?.length ? 'shape.add' : 'shape.limit', { item: chosen.item }) }}
        </button>
      </template>
      <p v-else class="small">{{ t('shape.hover') }}</p>
      <p v-if="tally.missing" class="small note">
        {{ t('shape.missingText', { n: n(tally.missing, 'whole') }, tally.missing) }}
      </p>
      <button v-if="set" class="btn bare" @click="limit(undefined, limitName(set))">
        {{ t('shape.take') }}: {{ limitName(set) }}
      </button>
      <ChartButtons :name="t(`facet.${facet}`)" :svg="() => holder" />
    </aside>
  </div>
</template>

<style scoped>
thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
  z-index: 1;
}

.fig {
  text-align: right;
  width: 84px;
}

tbody th button,
tbody th .row {
  position: relative;
  display: flex;
  align-items: center;
  width: 100%;
  height: 24px;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}

tbody th .row {
  cursor: default;
}

tbody th i {
  position: absolute;
  inset: 2px auto 2px 0;
  background: var(--plum);
  opacity: 0.17;
  border-radius: 2px;
}

tbody th span {
  position: relative;
  padding-left: 7px;
}

tr:hover,
tr.on {
  background: var(--gold-soft);
}

tr.limited i {
  background: var(--gold-bright);
  opacity: 0.5;
}

tr.missing th {
  color: var(--ink-2);
}

tr.missing i {
  background: repeating-linear-gradient(-45deg, var(--ink-3) 0 1.5px, transparent 1.5px 5px);
  opacity: 0.6;
}

.head {
  margin: 20px 0 2px;
  font-size: 14px;
  font-weight: 650;
}

table.said {
  width: auto;
  margin-top: 6px;
}

.note {
  margin-top: 8px;
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
