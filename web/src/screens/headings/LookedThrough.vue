<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Headings } from '@/api/client'
import { useThrough } from './through'

/** Which vocabulary is looked through, where there are several, and how many headings the words lead to there. */
defineProps<{ found?: Headings; own: string }>()

const { t, n } = useI18n()
const through = useThrough()
</script>

<template>
  <select
    v-if="through.choices.length > 1"
    class="field language"
    :aria-label="t('through.title')"
    :value="through.vocabulary?.id"
    @change="through.wanted = Number(($event.target as HTMLSelectElement).value)"
  >
    <option v-for="v in through.choices" :key="v.id" :value="v.id">
      {{ v.name }}
    </option>
  </select>
  <span class="small" aria-live="polite">{{
    found
      ? t(
          through.choices.length > 1 ? 'headings.leadsN' : 'headings.ways',
          {
            name: through.vocabulary?.name ?? '',
            n: n(found.leads.length, 'whole') + (found.cut ? '+' : ''),
          },
          found.leads.length,
        )
      : through.choices.length > 1
        ? ''
        : own
  }}</span>
</template>

<style scoped>
.language {
  width: auto;
}
</style>
