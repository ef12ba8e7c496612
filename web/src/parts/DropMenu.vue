<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { dropReasons, useDecide, type Item } from '@/state/decide'

/** Drops what was proposed, with a reason: it is not proposed again. */
defineProps<{ item: Item; said?: string }>()
const { t } = useI18n()
const { decide } = useDecide()
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }">
      <button
        class="btn bare drop"
        v-bind="menu"
        :aria-label="t('drop.one', { item: item.item })"
        :title="t('drop.one', { item: item.item })"
      >
        {{ said ?? '×' }}
      </button>
    </template>
    <v-list :aria-label="t('drop.why')">
      <v-list-subheader>{{ t('drop.why') }}</v-list-subheader>
      <v-list-item
        v-for="r in dropReasons"
        :key="r"
        :title="t(`reason.${r}`)"
        @click="decide([item], 'dropped', r)"
      />
    </v-list>
  </v-menu>
</template>

<style scoped>
.drop {
  padding: 0 5px;
}
</style>
