<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, Term } from '@/api/client'
import { useLineActs } from '@/state/lineActs'
import { useTalk } from '@/state/talk'
import { termText, useReview } from '@/state/review'

/** What can be done to a line from where the strategy is read: the same as in its block. */
const props = defineProps<{ block: Block; term: Term }>()
const emit = defineEmits<{ note: [] }>()
const { t } = useI18n()
const review = useReview()
const acts = useLineActs(() => props)
const talk = useTalk()
function raise() {
  const { term } = props
  talk.on = {
    kind: term.kind === 'heading' ? 'heading' : 'term',
    about: term.id,
    name: termText(term),
  }
}

const at = computed(() => props.block.terms.findIndex((x) => x.id === props.term.id))
const others = computed(() => review.document.blocks.filter((b) => b.id !== props.block.id))
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }">
      <button
        class="link small more"
        v-bind="menu"
        :aria-label="t('blocks.more', { term: termText(term) })"
      >
        ⋯
      </button>
    </template>
    <v-list>
      <v-list-item
        :title="t(term.on ? 'strategy.switchOff' : 'strategy.switchOn')"
        @click="acts.setOn(!term.on)"
      />
      <v-list-item :title="t('blocks.note')" @click="emit('note')" />
      <v-list-item :title="t('talk.raise')" @click="raise" />
      <v-list-item v-if="at > 0" :title="t('strategy.up')" @click="acts.move(-1)" />
      <v-list-item
        v-if="at < block.terms.length - 1"
        :title="t('strategy.down')"
        @click="acts.move(1)"
      />
      <v-list-item :title="t('strategy.double')" @click="acts.double()" />
      <v-list-item
        v-for="b in others"
        :key="b.id"
        :title="t('remark.move', { block: b.name })"
        @click="acts.moveTo(b)"
      />
      <v-list-item :title="t('act.remove')" @click="acts.remove()" />
    </v-list>
  </v-menu>
</template>

<style scoped>
.more {
  padding: 0 6px;
}
</style>
