<script setup lang="ts">
import { useNotes } from '@/state/notes'

const notes = useNotes()

function act() {
  notes.open = false
  notes.note?.action?.run()
}
</script>

<template>
  <v-snackbar
    v-model="notes.open"
    :timeout="notes.note?.action ? 20_000 : 8000"
    location="bottom left"
    role="status"
  >
    <span :class="{ wrong: notes.note?.wrong }">{{ notes.note?.text }}</span>
    <template v-if="notes.note?.action" #actions>
      <button class="btn bare" @click="act">{{ notes.note.action.label }}</button>
    </template>
  </v-snackbar>
</template>

<style scoped>
.wrong::before {
  content: '';
  display: inline-block;
  width: 8px;
  height: 8px;
  margin-right: 8px;
  border: 2px solid var(--gold-bright);
  border-radius: 2px;
}
</style>
