<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { states } from './candidates'

/** Which candidates are shown: by what is decided, and by what they say. */
const show = defineModel<(typeof states)[number]>('show', { required: true })
const words = defineModel<string>('words', { required: true })
defineProps<{ shown: number; decides: boolean }>()
const emit = defineEmits<{ list: []; help: [] }>()

const { t, n } = useI18n()
const filter = ref<HTMLInputElement>()

function clear() {
  words.value = ''
  emit('list')
}

defineExpose({ focus: () => filter.value?.focus() })
</script>

<template>
  <div class="tools">
    <div v-if="decides" class="states" role="group" :aria-label="t('harvest.show')">
      <button v-for="s in states" :key="s" :class="{ here: s === show }" :aria-pressed="s === show" @click="show = s">{{ t(`state.${s}`) }}</button>
    </div>
    <label class="visually-hidden" for="filter">{{ t('harvest.filter') }}</label>
    <input
      id="filter" ref="filter" v-model="words" class="field" :placeholder="t('harvest.filterHint')" autocomplete="off"
      @keydown.esc="clear" @keydown.enter="emit('list')" @keydown.down.prevent="emit('list')"
    />
    <span class="small">{{ t('harvest.shown', { n: n(shown, 'whole') }, shown) }}</span>
    <span class="grow" />
    <button v-if="decides" class="btn bare" @click="emit('help')">{{ t('keysHelp.open') }} <kbd>?</kbd></button>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  margin-top: 8px;
}

.field {
  width: 150px;
  padding: 3px 9px;
}

.states {
  display: flex;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  overflow: hidden;
  background: var(--white);
}

.states button {
  border: 0;
  border-right: 1px solid var(--line);
  background: none;
  padding: 3px 9px;
  font-size: 12.5px;
  cursor: pointer;
}

.states button:last-child {
  border-right: 0;
}

.states button.here {
  background: var(--plum);
  color: #fff;
}

.states button:focus-visible {
  outline-offset: -2px;
}
</style>
