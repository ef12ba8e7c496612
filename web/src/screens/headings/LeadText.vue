<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { HeadingLead } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'

/** A heading that words lead to, with how. */
defineProps<{
  lead: HeadingLead
  /** How many words were looked up. */
  of: number
}>()

const { t, n } = useI18n()

function how(l: HeadingLead): string {
  const via = t(`headings.via.${l.via}`)
  return l.language ? t('headings.viaOther', { via, language: l.language }) : via
}
</script>

<template>
  <span class="row name"
    ><b>{{ lead.shown }}</b
    ><span v-if="lead.shown !== lead.label" class="small">{{ lead.label }}</span
    ><BlockStamp v-if="lead.taken" :block="lead.taken" :size="15" /><span class="grow" /><span
      v-if="lead.records !== undefined"
      class="small"
      >{{ n(lead.records, 'whole') }}</span
    ></span
  >
  <span class="small"
    ><template v-if="lead.forgiven === 'letter'"
      >{{ t('headings.meant', { word: lead.meant ?? lead.matched }) }}{{ ' ' }}</template
    >{{ how(lead)
    }}<template v-if="lead.via === 'entryTerm' || (lead.via === 'label' && lead.language)"
      >: <span class="mono">{{ lead.matched }}</span></template
    ><template v-if="lead.forgiven === 'order' || lead.forgiven === 'form'"
      >, {{ t(`headings.${lead.forgiven}`) }}</template
    ><template v-if="of > 1">, {{ t('headings.of', { n: lead.words.length, of }) }}</template
    ><template v-if="lead.suit !== undefined"
      >, {{ t('headings.suit', { suit: n(lead.suit, 'two') }) }}</template
    ></span
  >
  <span v-if="lead.scopeNote" class="small note">{{ lead.scopeNote }}</span>
  <span v-if="lead.retired" class="small miss">{{ t('headings.retired') }}</span>
</template>

<style scoped>
.name {
  gap: 6px;
  align-items: baseline;
}

.note {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
  color: var(--ink);
}

.mono {
  font-size: 12px;
}

.miss {
  color: var(--miss);
}
</style>
