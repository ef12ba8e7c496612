<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Tally } from '@/api/client'
import { useReader } from '@/parts/reader'
import { byHeadings } from './limits'
import SaferLimit from './SaferLimit.vue'

/**
 * How many records are of a kind by what they are indexed with, and how many by what their titles say; a limit to either opens
 * below, with its words to be changed.
 */
defineProps<{ tally: Tally }>()

const { t, n } = useI18n()
const reader = useReader()
const ways = ['typed', 'titled', 'both', 'either'] as const
const safer = ref<NonNullable<Tally['said']>[number]>()
</script>

<template>
  <template v-if="tally.said?.some((s) => s.either)">
    <h2 class="head">{{ t('shape.said') }}</h2>
    <p class="small">
      {{ t(byHeadings(tally.facet) ? 'shape.saidHeadings' : 'shape.saidText') }}
    </p>
    <table class="said">
      <thead>
        <tr>
          <td />
          <th v-for="c in ways" :key="c" scope="col" class="fig">
            {{ t(c === 'typed' && byHeadings(tally.facet) ? 'shape.headed' : `shape.${c}`) }}
          </th>
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
                  { kind: 'aspect', facet: tally.facet, item: s.kind, aspect: how },
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
    <SaferLimit
      v-if="safer"
      :key="safer.kind"
      :said="safer"
      :tally="tally"
      @close="safer = undefined"
    />
  </template>
</template>

<style scoped>
.head {
  margin: 20px 0 2px;
  font-size: 14px;
  font-weight: 650;
}

.fig {
  width: 84px;
}

table.said {
  width: auto;
  margin-top: 6px;
}
</style>
