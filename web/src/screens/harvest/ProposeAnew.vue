<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useLooked } from '@/state/looked'

/** Brings the list into the order that holds now: while somebody decides, rows stay where they are. */
const { t } = useI18n()
const looked = useLooked()
</script>

<template>
  <button
    class="btn bare"
    :title="
      looked.since
        ? `${t('looked.anewTip')}. ${t('looked.changes', { n: looked.since }, looked.since)}`
        : t('looked.anewTip')
    "
    @click="looked.anew()"
  >
    {{ t('looked.anew')
    }}<span v-if="looked.since" class="since" aria-hidden="true">{{ looked.since }}</span>
    <kbd>O</kbd>
  </button>
</template>

<style scoped>
.since {
  margin-left: 4px;
  padding: 0 5px;
  border-radius: 8px;
  background: var(--gold-soft);
  font-size: 11px;
}
</style>
