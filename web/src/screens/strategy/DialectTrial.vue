<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { components } from '@/api/contract'
import SourceNotes from '@/parts/SourceNotes.vue'

/** What a dialect makes of a small strategy, and what its own reader makes of that. */
defineProps<{ trial: components['schemas']['Trial'] }>()
const { t } = useI18n()
</script>

<template>
  <table class="figures trial" :aria-label="t('dialect.trial')">
    <thead>
      <tr>
        <th class="left">{{ t('dialect.meant') }}</th>
        <th class="left">{{ t('dialect.written') }}</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="l in [...trial.lines, trial.whole]" :key="l.number">
        <tr :class="{ whole: l === trial.whole }">
          <td class="left meant">
            <span class="number small">{{ l.number || '' }}</span>{{ ' '
            }}<span v-if="l === trial.whole">{{ t('dialect.whole') }}</span
            ><span v-else class="mono">{{ l.meant }}</span>
          </td>
          <td class="left typed">
            <pre v-for="(x, i) in l.texts" :key="i" class="mono">{{ x }}</pre>
            <span v-if="!l.texts.length" class="small">{{ t('strategy.unsaid') }}</span>
            <SourceNotes v-if="l !== trial.whole" class="small cost" :notes="l.notes" />
            <p v-if="!l.agrees" class="wrong small" role="alert">
              {{ t(l.read ? 'dialect.readAs' : 'dialect.notRead', { read: l.read }) }}
            </p>
          </td>
        </tr>
      </template>
    </tbody>
  </table>
</template>

<style scoped>
.trial td {
  vertical-align: top;
  overflow-wrap: anywhere;
}

.meant {
  width: 42%;
  font-size: 12.5px;
}

.typed {
  font-size: 12.5px;
}

.number {
  display: inline-block;
  min-width: 18px;
}

.whole td {
  background: var(--card);
}

pre {
  white-space: pre-wrap;
  margin: 0;
}

.cost {
  color: var(--gold-deep);
}

.wrong {
  color: var(--miss);
}
</style>
