<script setup lang="ts">
import { nextTick, ref } from 'vue'
import { useI18n } from 'vue-i18n'

/** Makes what is selected the first word of a concept of its own: the one thing to say is what the concept is called. */
const props = defineProps<{ outline: boolean }>()
const emit = defineEmits<{ begin: [name: string] }>()
const { t } = useI18n()
const naming = ref(false)
const name = ref('')
const input = ref<HTMLInputElement>()

async function open() {
  naming.value = true
  await nextTick()
  input.value?.focus()
}

function begin() {
  const called = name.value.trim()
  naming.value = false
  name.value = ''
  if (called) emit('begin', called)
}

defineExpose({ open })
</script>

<template>
  <form v-if="naming" class="naming" @submit.prevent="begin" @keydown.esc.stop="naming = false">
    <label class="visually-hidden" for="concept-name">{{ t('concept.name') }}</label>
    <input
      id="concept-name"
      ref="input"
      v-model="name"
      class="field"
      maxlength="300"
      :placeholder="t('concept.name')"
      autocomplete="off"
      @keydown.stop="$event.key === 'Escape' && (naming = false)"
    />
    <button class="btn" :disabled="!name.trim()">{{ t('concept.begin') }}</button>
  </form>
  <button v-else class="btn" :class="{ outline: props.outline }" @click="open">
    {{ t('concept.new') }} <kbd>N</kbd>
  </button>
</template>

<style scoped>
.naming {
  display: flex;
  gap: 8px;
  flex: 1 1 100%;
}

.naming .field {
  flex: 1;
  min-width: 0;
}
</style>
