<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useReview } from '@/state/review'
import DropMenu from './DropMenu.vue'
import NewConcept from './NewConcept.vue'

/** What is done with a candidate: into which block, parked, dropped; a block that is rested on is shown ahead. */
defineProps<{
  item: string
  target?: Block
  /** There is nothing that could be taken. */
  none: boolean
  dropping: boolean
}>()
const emit = defineEmits<{
  add: [block: Block]
  begin: [name: string]
  park: []
  drop: [reason: string]
  dropping: [on: boolean]
  preview: [block?: Block]
}>()

const { t } = useI18n()
const review = useReview()
const concept = ref<InstanceType<typeof NewConcept>>()
const name = () => concept.value?.open()

defineExpose({ name })
</script>

<template>
  <div class="acts">
    <button
      v-for="b in review.document.blocks"
      :key="b.id"
      class="btn into"
      :class="{ outline: b.id !== target?.id }"
      :disabled="none"
      :aria-label="t('act.addTo', { block: b.name })"
      :title="b.concept"
      @click="emit('add', b)"
      @mouseenter="emit('preview', b)"
      @mouseleave="emit('preview', target)"
      @focus="emit('preview', b)"
    >
      <template v-if="b.id === target?.id">{{
        t('act.addTo', { block: b.name })
      }}</template><BlockStamp v-else :block="b.id" :size="18" />
    </button>
    <NewConcept
      ref="concept"
      :outline="review.document.blocks.length > 0"
      @begin="emit('begin', $event)"
    />
    <button class="btn outline" @click="emit('park')">{{ t('act.park') }}</button>
    <DropMenu
      :model-value="dropping"
      :of="item"
      @update:model-value="emit('dropping', $event)"
      @drop="emit('drop', $event)"
    />
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 9px;
}

/* Which block it goes into by default is known late: none of the others moves for it. */
.into {
  min-width: 76px;
  justify-content: center;
}

/* What stands in it is drawn anew: a press begun on it belongs to the button. */
.into > :deep(*) {
  pointer-events: none;
}
</style>
