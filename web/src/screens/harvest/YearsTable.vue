<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Tally, TallyRow } from '@/api/client'
import { useReader } from '@/parts/reader'

/** Records by year as a table, the latest first; what a limit would lose is grey. */
defineProps<{ tally: Tally; years: { year: number; row?: TallyRow }[]; cut?: number }>()
const emit = defineEmits<{ open: [year: number] }>()

const { t, n } = useI18n()
const reader = useReader()
</script>

<template>
  <table>
    <thead>
      <tr>
        <th scope="col">{{ t('shape.item.years') }}</th>
        <th scope="col" class="fig">{{ t('figure.records') }}</th>
        <th scope="col" class="fig">{{ t('shape.share') }}</th>
        <th v-if="tally.contrast" scope="col" class="fig">{{ t('shape.contrastShare') }}</th>
        <th scope="col" class="fig">{{ t('years.unindexed') }}</th>
        <th v-if="tally.hasKeys" scope="col" class="fig">{{ t('figure.keys') }}</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="d in [...years].reverse().filter((d) => d.row)"
        :key="d.year"
        :class="{ out: cut !== undefined && d.year < cut }"
      >
        <th scope="row">{{ d.year }}</th>
        <td class="fig">
          <button class="link" @click="emit('open', d.year)">
            {{ n(d.row!.records, 'whole') }}
          </button>
        </td>
        <td class="fig">{{ n(d.row!.share, 'share') }}</td>
        <td v-if="tally.contrast" class="fig">{{ n(d.row!.contrastShare ?? 0, 'share') }}</td>
        <td class="fig">
          <button
            v-if="d.row!.unindexed"
            class="link"
            :aria-label="t('shape.bareOf', { n: n(d.row!.unindexed, 'whole'), item: d.year })"
            @click="
              reader.list(
                { kind: 'aspect', facet: 'years', item: d.row!.item, aspect: 'bare' },
                t('looked.bare', { item: d.year }),
              )
            "
          >
            {{ n(d.row!.bare ?? 0, 'share') }}</button><template v-else>{{
            n(0, 'share')
          }}</template>
        </td>
        <td v-if="tally.hasKeys" class="fig">{{ d.row!.keys }}</td>
      </tr>
      <tr v-if="tally.missing">
        <th scope="row">{{ t('shape.missing') }}</th>
        <td class="fig">
          <button
            class="link"
            @click="
              reader.list({ kind: 'aspect', facet: 'years', aspect: 'missing' }, t('shape.missing'))
            "
          >
            {{ n(tally.missing, 'whole') }}
          </button>
        </td>
        <td class="fig">{{ n(tally.missingShare, 'share') }}</td>
        <td v-if="tally.contrast" />
        <td />
        <td v-if="tally.hasKeys" class="fig">{{ tally.missingKeys }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
tr.out {
  color: var(--ink-3);
}
</style>
