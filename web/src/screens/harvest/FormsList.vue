<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** The variants of a word or phrase: those that are ticked are added. */
const ticked = defineModel<string[]>({ required: true })
defineProps<{ forms: { item: string; records: number }[] }>()
const { t, n } = useI18n()
</script>

<template>
  <ul class="forms" :aria-label="t('panel.forms')">
    <li v-for="f in forms" :key="f.item">
      <label
        ><input v-model="ticked" type="checkbox" :value="f.item" />
        <span class="mono cut">{{ f.item }}</span>
        <span class="small">{{ n(f.records, 'whole') }}</span></label
      >
    </li>
  </ul>
</template>

<style scoped>
.forms {
  margin-top: 7px;
  max-height: 132px;
  overflow-y: auto;
}

label {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 1px 0;
  cursor: pointer;
}

.small {
  margin-left: auto;
  padding-right: 8px;
}

input {
  accent-color: var(--plum);
  margin: 0;
  flex: none;
}
</style>
