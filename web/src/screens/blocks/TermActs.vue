<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, Term } from '@/api/client'
import { useLineActs } from '@/state/lineActs'
import { termText, useReview } from '@/state/review'

/** What can be done to a line of a block besides switching it: moved, noted on, put into another block, taken out. */
const props = defineProps<{
  block: Block
  term: Term
  first: boolean
  last: boolean
  ordered: boolean
}>()
const emit = defineEmits<{ note: []; group: [] }>()

const { t } = useI18n()
const review = useReview()
const acts = useLineActs(() => props)
const others = computed(() => review.document.blocks.filter((b) => b.id !== props.block.id))

function move(by: number) {
  if (props.ordered && !(by < 0 ? props.first : props.last)) acts.move(by)
}

defineExpose({ move })
</script>

<template>
  <button
    class="ico"
    :disabled="first || !ordered"
    :aria-label="t('blocks.up', { term: termText(term) })"
    :title="t('blocks.upTip')"
    @click="move(-1)"
  >
    ↑
  </button>
  <button
    class="ico"
    :disabled="last || !ordered"
    :aria-label="t('blocks.down', { term: termText(term) })"
    :title="t('blocks.downTip')"
    @click="move(1)"
  >
    ↓
  </button>
  <v-menu>
    <template #activator="{ props: menu }">
      <button class="ico" v-bind="menu" :aria-label="t('blocks.more', { term: termText(term) })">
        ⋯
      </button>
    </template>
    <v-list>
      <v-list-item :title="t('blocks.note')" @click="emit('note')" />
      <v-list-item :title="t('group.into')" @click="emit('group')" />
      <v-list-item
        v-if="term.group"
        :title="t('group.out', { group: term.group })"
        @click="acts.ungroup()"
      />
      <v-list-item
        v-for="b in others"
        :key="b.id"
        :title="t('remark.move', { block: b.name })"
        @click="acts.moveTo(b)"
      />
    </v-list>
  </v-menu>
  <button
    class="ico"
    :aria-label="t('blocks.removeOne', { term: termText(term) })"
    :title="t('act.remove')"
    @click="acts.remove()"
  >
    ×
  </button>
</template>

<style scoped>
.ico {
  border: 0;
  background: none;
  padding: 2px 6px;
  color: var(--ink-2);
  cursor: pointer;
}

.ico:hover:not(:disabled) {
  color: var(--plum);
}

.ico:disabled {
  opacity: 0.35;
  cursor: default;
}
</style>
