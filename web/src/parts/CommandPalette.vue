<script setup lang="ts">
import { refDebounced, useEventListener } from '@vueuse/core'
import { nextTick, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { usePalette, type Found } from './palette'

/** Find anything: terms, headings, words, records, screens and actions, by what they are called. */
const open = defineModel<boolean>({ required: true })

const { t } = useI18n()

const typed = ref('')
const settled = refDebounced(typed, 180)
const at = ref(0)
const field = ref<HTMLInputElement>()
const { found } = usePalette(open, typed, settled)
watch(typed, () => (at.value = 0))
watch(open, async (on) => {
  if (!on) return
  typed.value = ''
  await nextTick()
  field.value?.focus()
})
watch(at, (i) => document.getElementById(`found-${i}`)?.scrollIntoView({ block: 'nearest' }))

useEventListener('keydown', (e: KeyboardEvent) => {
  if ((e.ctrlKey || e.metaKey) && !e.altKey && !e.shiftKey && e.key.toLowerCase() === 'k') {
    e.preventDefault()
    open.value = !open.value
  }
})

function go(f: Found | undefined) {
  if (!f) return
  open.value = false
  void nextTick(() => f.go())
}
function onKey(e: KeyboardEvent) {
  const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[e.key]
  if (by) {
    e.preventDefault()
    at.value = Math.min(Math.max(at.value + by, 0), found.value.length - 1)
  } else if (e.key === 'Enter') {
    e.preventDefault()
    go(found.value[at.value])
  }
}
</script>

<template>
  <v-dialog
    v-model="open"
    :max-width="620"
    :aria-label="t('palette.open')"
    class="palette"
    location="top"
    transition="false"
  >
    <v-card>
      <input
        ref="field"
        v-model="typed"
        class="field"
        role="combobox"
        aria-expanded="true"
        aria-controls="found"
        :aria-activedescendant="found.length ? `found-${at}` : undefined"
        :aria-label="t('palette.hint')"
        :placeholder="t('palette.hint')"
        maxlength="300"
        autocomplete="off"
        spellcheck="false"
        @keydown="onKey"
      />
      <ul id="found" role="listbox" :aria-label="t('palette.open')">
        <li
          v-for="(f, i) in found"
          :id="`found-${i}`"
          :key="`${f.kind} ${f.name} ${f.hint ?? ''}`"
          role="option"
          :aria-selected="i === at"
          :class="{ here: i === at }"
          @mousemove="at = i"
          @click="go(f)"
        >
          <span class="small kind">{{
            i === 0 || found[i - 1].kind !== f.kind ? t(`palette.kind.${f.kind}`) : ''
          }}</span>
          <span class="cut" :class="{ mono: f.kind === 'term' || f.kind === 'candidate' }">{{
            f.name
          }}</span>
          <span class="small hint">{{ f.hint }}</span>
        </li>
        <li v-if="!found.length" class="small none" role="option" aria-selected="false">
          {{ t('palette.none') }}
        </li>
      </ul>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.field {
  margin: 12px 12px 6px;
  width: auto;
  font-size: 15px;
  padding: 8px 12px;
}

ul {
  max-height: 56vh;
  overflow-y: auto;
  padding: 0 6px 8px;
}

li {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr) auto;
  gap: 10px;
  align-items: baseline;
  padding: 4px 10px;
  border-radius: var(--radius);
  cursor: pointer;
}

li.here {
  background: var(--gold-soft);
}

.none {
  display: block;
  cursor: default;
}

.hint {
  white-space: nowrap;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
