<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Tally, TallyRow } from '@/api/client'
import { useReader } from '@/parts/reader'

/** How much of what is looked at each type, language, country or group of headings takes, the largest first. */
const props = defineProps<{
  tally: Tally
  rows: TallyRow[]
  limited: (item: string) => boolean
  /** What the source would find with a limit to an item; empty where it was not asked. */
  there: Map<string, number>
  source: string
}>()
const chosen = defineModel<TallyRow>('chosen')
const emit = defineEmits<{ rest: [row?: TallyRow] }>()

const { t, n } = useI18n()
const reader = useReader()
const facet = computed(() => props.tally.facet)
const most = computed(() => Math.max(1, props.tally.missing, ...props.rows.map((r) => r.records)))

function choose(r: TallyRow) {
  chosen.value = chosen.value?.item === r.item ? undefined : r
  emit('rest')
}
const records = (r: TallyRow) =>
  reader.list({ kind: 'item', facet: facet.value, item: r.item }, r.item)
</script>

<template>
  <table class="shares">
    <thead>
      <tr>
        <th scope="col">{{ t(`shape.item.${facet}`) }}</th>
        <th scope="col" class="fig">{{ t('figure.records') }}</th>
        <th scope="col" class="fig">{{ t('shape.share') }}</th>
        <th v-if="tally.contrast" scope="col" class="fig">{{ t('shape.contrastShare') }}</th>
        <th v-if="tally.hasKeys" scope="col" class="fig">{{ t('figure.keys') }}</th>
        <th v-if="there.size" scope="col" class="fig" :title="t('shape.eachTip')">
          {{ t('shape.atSource', { source }) }}
        </th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="r in rows"
        :key="r.item"
        :class="{ on: chosen?.item === r.item, limited: limited(r.item) }"
        @mouseenter="emit('rest', r)"
        @mouseleave="emit('rest')"
      >
        <th scope="row">
          <button
            :aria-pressed="chosen?.item === r.item"
            @click="choose(r)"
            @focus="emit('rest', r)"
            @blur="emit('rest')"
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
        <td v-if="there.size" class="fig">
          {{ there.has(r.item) ? n(there.get(r.item)!, 'whole') : '' }}
        </td>
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
            @click="reader.list({ kind: 'aspect', facet, aspect: 'missing' }, t('shape.missing'))"
          >
            {{ n(tally.missing, 'whole') }}
          </button>
        </td>
        <td class="fig">{{ n(tally.missingShare, 'share') }}</td>
        <td v-if="tally.contrast" />
        <td v-if="tally.hasKeys" class="fig">{{ tally.missingKeys }}</td>
        <td v-if="there.size" />
      </tr>
    </tbody>
  </table>
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
</style>
