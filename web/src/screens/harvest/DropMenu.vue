<script setup lang="ts">
import { ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { dropReasons } from '@/state/decide'

/** Why an item is dropped: a reason by its number, one of one's own, or none. */
const open = defineModel<boolean>({ required: true })
/** What is dropped: a reason that was begun for another is not meant for it. */
const props = defineProps<{ of: string }>()
const emit = defineEmits<{ drop: [reason: string] }>()
const { t } = useI18n()
const own = ref('')
watch(
  () => props.of,
  () => (own.value = ''),
)
</script>

<template>
  <v-menu v-model="open">
    <template #activator="{ props: menu }"
      ><button class="btn bare" v-bind="menu">{{ t('act.drop') }}</button></template
    >
    <v-list :aria-label="t('panel.why')">
      <v-list-item v-for="(r, i) in dropReasons" :key="r" @click="emit('drop', r)"
        ><v-list-item-title
          ><kbd>{{ i + 1 }}</kbd> {{ t(`reason.${r}`) }}</v-list-item-title
        ></v-list-item
      >
      <v-list-item @click.stop
        ><input
          v-model="own"
          class="field"
          :aria-label="t('own.label')"
          :placeholder="t('own.reason')"
          maxlength="200"
          @keydown.stop
          @keydown.enter="emit('drop', own.trim())"
      /></v-list-item>
      <v-list-item @click="emit('drop', '')"
        ><v-list-item-title
          ><kbd>Enter</kbd> {{ t('panel.noReason') }}</v-list-item-title
        ></v-list-item
      >
    </v-list>
  </v-menu>
</template>
