<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useI18n } from 'vue-i18n'

/** What a version is called, and what is noted of it. */
const props = defineProps<{
  label: string
  name: string
  note?: string // none is asked for, where there is none to begin with
  done?: string // what the button says
}>()
const emit = defineEmits<{ done: [name: string, note: string]; cancel: [] }>()
const { t } = useI18n()
const name = ref(props.name)
const note = ref(props.note ?? '')
const field = ref<HTMLInputElement>()
onMounted(() => field.value?.focus())
function take() {
  if (name.value.trim()) emit('done', name.value.trim(), note.value.trim())
}
</script>

<template>
  <form class="row" :aria-label="label" @submit.prevent="take" @keydown.esc="emit('cancel')">
    <input
      ref="field"
      v-model="name"
      class="field"
      maxlength="200"
      :aria-label="t('versions.name')"
      :placeholder="t('versions.name')"
    />
    <input
      v-if="props.note !== undefined"
      v-model="note"
      class="field grow"
      maxlength="4000"
      :aria-label="t('versions.note')"
      :placeholder="t('versions.note')"
    />
    <button class="btn" :disabled="!name.trim()">{{ props.done ?? t('versions.done') }}</button>
    <button type="button" class="btn bare" @click="emit('cancel')">{{ t('act.cancel') }}</button>
  </form>
</template>

<style scoped>
form {
  margin-bottom: 8px;
  flex-wrap: wrap;
}
</style>
