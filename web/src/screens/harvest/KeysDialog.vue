<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Key } from './keys'

defineProps<{ keys: Key[] }>()
const open = defineModel<boolean>({ required: true })
const { t } = useI18n()
</script>

<template>
  <v-dialog v-model="open" :max-width="420" :aria-label="t('keysHelp.title')">
    <v-card class="keys">
      <h2 class="display">{{ t('keysHelp.title') }}</h2>
      <p class="small">{{ t('keysHelp.note') }}</p>
      <dl>
        <template v-for="k in keys" :key="k.shown"
          ><dt>
            <kbd v-for="one in k.shown.split(' ')" :key="one">{{ one }}</kbd>
          </dt>
          <dd>{{ k.name }}</dd></template
        >
      </dl>
      <button class="btn" @click="open = false">{{ t('reader.close') }}</button>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.keys {
  padding: 18px 20px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 14px;
  margin: 12px 0 16px;
}

dt {
  display: flex;
  gap: 3px;
}

dd {
  margin: 0;
}

.btn {
  justify-self: start;
  align-self: start;
}
</style>
