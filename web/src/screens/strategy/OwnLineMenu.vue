<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useNotes } from '@/state/notes'
import { useReview } from '@/state/review'
import { useSteps } from '@/state/steps'
import { useTalk } from '@/state/talk'

/** What can be done to a line that somebody put together of others. */
const props = defineProps<{ line: string; number: number; fixed?: boolean }>()
const emit = defineEmits<{ note: []; edit: [] }>()
const { t } = useI18n()
const review = useReview()
const notes = useNotes()
const steps = useSteps()
const talk = useTalk()

function remove() {
  const what = { key: 'removeLine', params: { n: String(props.number) } }
  review.change(what, { edits: [{ op: 'removeLine', id: props.line }] })
  notes.say({
    text: t('change.removeLine', what.params),
    action: { label: t('steps.undo'), run: steps.undo },
  })
}
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }">
      <button
        class="link small more"
        v-bind="menu"
        :aria-label="t('strategy.moreForLine', { n: number })"
      >
        ⋯
      </button>
    </template>
    <v-list>
      <v-list-item v-if="!fixed" :title="t('strategy.edit')" @click="emit('edit')" />
      <v-list-item :title="t('blocks.note')" @click="emit('note')" />
      <v-list-item
        :title="t('talk.raise')"
        @click="
          talk.on = { kind: 'line', about: line, name: t('strategy.lineNumber', { n: number }) }
        "
      />
      <v-list-item :title="t('act.remove')" @click="remove()" />
    </v-list>
  </v-menu>
</template>

<style scoped>
.more {
  padding: 0 6px;
}
</style>
