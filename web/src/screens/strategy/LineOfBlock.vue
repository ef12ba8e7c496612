<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Block } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import type { Line } from './lines'

/** The line that joins the terms of a block: they fold away under it. */
defineProps<{ line: Line; block?: Block; folded: number }>()
const emit = defineEmits<{ fold: [] }>()

const { t } = useI18n()
</script>

<template>
  <button
    class="link fold"
    :aria-expanded="!folded"
    :aria-label="t(folded ? 'strategy.unfold' : 'strategy.fold', { block: block?.name ?? '' })"
    @click="emit('fold')"
  >
    {{ folded ? '▸' : '▾' }}</button>{{ ' ' }}<BlockStamp :block="line.block" :size="16" />{{ ' '
  }}<b>{{ block?.concept || line.meant }}</b
  >{{ ' '
  }}<span class="small">{{
    folded ? t('strategy.folded', { n: folded }, folded) : line.meant
  }}</span>
</template>

<style scoped>
.fold {
  width: 16px;
}
</style>
