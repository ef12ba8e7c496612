<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useTalk } from '@/state/talk'

/** Asks something about a block or a limit. */
defineProps<{ kind: 'limit' | 'block'; about: string; name: string; line: string }>()

const { t } = useI18n()
const talk = useTalk()
</script>

<template>
  <button
    class="link small more"
    :aria-label="t('talk.raiseOn', { name: line })"
    :title="t('talk.raise')"
    @click="talk.on = { kind, about, name }"
  >
    ?
  </button>
</template>

<style scoped>
.more {
  padding: 0 7px;
}
</style>
