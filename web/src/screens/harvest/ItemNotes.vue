<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { TallyItem } from '@/api/client'
import type { Candidate } from './candidates'

/** What goes without saying elsewhere: of which heading it is an entry term, what never stands without it, where it stands. */
defineProps<{ candidate: Candidate; item?: TallyItem }>()

const { t, n } = useI18n()
</script>

<template>
  <p v-if="item?.entryOf" class="small absorbs">
    {{ t('tree.entryOf', { heading: item.entryOf }) }}
  </p>
  <p v-if="candidate.row.absorbs?.length" class="small absorbs">
    {{ t('panel.absorbs') }}
    <span class="mono">{{ candidate.row.absorbs.slice(0, 8).join(', ') }}</span>
  </p>
  <p v-if="item?.titleOnly !== undefined" class="small absorbs">
    {{ t('stands.titleOnly', { n: n(item.titleOnly, 'whole') }, item.titleOnly) }} ·
    {{ t('stands.keywords', { n: n(item.inKeywords ?? 0, 'whole') }) }}
  </p>
</template>

<style scoped>
.absorbs {
  margin-top: 4px;
}

.absorbs .mono {
  font-size: 12px;
}
</style>
