<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Tally } from '@/api/client'
import WithTip from '@/parts/WithTip.vue'

/** How the rows are laid out: headings as a tree, authors as teams; and that they stand in the order of suit. */
defineProps<{ tally: Tally; bySuit: boolean }>()
const tree = defineModel<boolean>('tree', { required: true })
const teams = defineModel<boolean>('teams', { required: true })

const { t } = useI18n()
</script>

<template>
  <button
    v-if="tally.facet === 'headings' && tally.hasNarrower"
    class="btn bare"
    :aria-pressed="tree"
    @click="tree = !tree"
  >
    {{ t(tree ? 'tree.asList' : 'tree.asTree') }}
  </button>
  <button
    v-if="tally.facet === 'authors'"
    class="btn outline"
    :aria-pressed="teams"
    @click="teams = !teams"
  >
    {{ t('teams.title') }}
  </button>
  <WithTip v-if="bySuit" :text="t('looked.bySuitTip')">
    <template #default="{ describedBy }">
      <span class="small" tabindex="0" :aria-describedby="describedBy">{{
        t('looked.bySuit')
      }}</span>
    </template>
  </WithTip>
</template>
