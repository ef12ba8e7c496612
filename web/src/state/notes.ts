import { defineStore } from 'pinia'
import { ref } from 'vue'

interface Note {
  text: string
  action?: { label: string; run: () => void }
  wrong?: boolean
}

/** What is said at the foot of the screen, one thing at a time. */
export const useNotes = defineStore('notes', () => {
  const note = ref<Note>()
  const open = ref(false)

  function say(next: Note) {
    note.value = next
    open.value = true
  }

  return { note, open, say }
})
