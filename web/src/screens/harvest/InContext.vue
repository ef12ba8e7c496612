<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** A word among the words around it, those of key studies first; each line opens its record. */
defineProps<{
  lines?: { record: number; key: boolean; before: string; match: string; after: string }[]
}>()
const emit = defineEmits<{ open: [record: number] }>()
const { t } = useI18n()
</script>

<template>
  <h3 class="sect">{{ t('panel.context') }}</h3>
  <ul v-if="lines?.length" class="context mono">
    <li v-for="(c, i) in lines.slice(0, 24)" :key="i">
      <button :title="t('panel.openRecord')" @click="emit('open', c.record)">
        <span class="before"
          ><bdi>{{ c.before }}</bdi></span
        ><b :class="{ key: c.key }">{{ c.match }}</b
        ><span class="after">{{ c.after }}</span>
      </button>
    </li>
  </ul>
  <p v-else-if="lines" class="small">{{ t('panel.noContext') }}</p>
</template>

<style scoped>
h3 {
  margin: 13px 0 4px;
}

.context {
  font-size: 11.5px;
  line-height: 1.75;
  color: var(--ink-2);
}

.context button {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 6px;
  width: 100%;
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
  white-space: pre;
  overflow: hidden;
}

.context button:hover {
  background: var(--card);
}

.before {
  text-align: right;
  overflow: hidden;
  direction: rtl;
}

.after {
  text-align: left;
  overflow: hidden;
}

b {
  color: var(--plum);
}

b.key {
  box-shadow: inset 0 -1.5px 0 var(--gold-bright);
}
</style>
