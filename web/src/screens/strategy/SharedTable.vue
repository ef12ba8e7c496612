<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Everywhere, SourceRun } from '@/api/client'
import { useInterval } from './interval'

/** How many works two sources share, each with each. */
const props = defineProps<{ sources: SourceRun[]; pairs: Everywhere['pairs'] }>()
const { t } = useI18n()
const interval = useInterval()

const shown = computed(() => props.sources.filter((s) => s.only))
const pair = (a: number, b: number) =>
  props.pairs.find((p) => (p.a === a && p.b === b) || (p.a === b && p.b === a))
</script>

<template>
  <section>
    <h2 class="sect">{{ t('everywhere.shared') }}</h2>
    <table class="figures" :aria-label="t('everywhere.shared')">
      <thead>
        <tr>
          <td />
          <th v-for="b in shown.slice(1)" :key="b.source" scope="col">{{ b.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(a, i) in shown.slice(0, -1)" :key="a.source">
          <th scope="row" class="left">{{ a.name }}</th>
          <td v-for="(b, k) in shown.slice(1)" :key="b.source">
            <template v-if="k >= i && pair(a.source, b.source)">{{
              interval(pair(a.source, b.source)!.works)
            }}</template>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="small">{{ t('everywhere.sameWork') }}</p>
  </section>
</template>
