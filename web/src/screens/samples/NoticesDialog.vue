<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { type Notice } from '@/api/client'
import { figures, useFigure } from '@/figures'

/** What could not be read of a file as it stood, line by line; it can be saved. */
const props = defineProps<{ of: { import: number; name: string; fileName: string; sum: string } }>()
const emit = defineEmits<{ close: [] }>()

const { t } = useI18n()
const notices = useFigure(figures.notices, () => ({ file: props.of.import }))

const partial = ['cut-off', 'unclosed', 'bad-entry', 'broken']
const said = (x: Notice) => {
  const what = t(`notice.${x.kind}`, { detail: x.detail })
  return partial.includes(x.kind)
    ? t(x.skipped ? 'noticeEnd.skipped' : 'noticeEnd.kept', { what })
    : what
}
</script>

<template>
  <v-dialog
    :model-value="true"
    :max-width="720"
    :aria-label="t('notices.title', { name: of.fileName })"
    @update:model-value="emit('close')"
  >
    <v-card class="notices">
      <h2 class="display">{{ t('notices.title', { name: of.fileName }) }}</h2>
      <p class="small">{{ of.sum }}</p>
      <div class="list" tabindex="0" role="region" :aria-label="t('notices.lines')">
        <table class="figures">
          <thead>
            <tr>
              <th>{{ t('notices.line') }}</th>
              <th class="left">{{ t('notices.what') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(x, i) in notices.data.value?.slice(0, 2000)" :key="i">
              <td>{{ x.line || '' }}</td>
              <td class="left">{{ said(x) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div class="row">
        <a
          class="btn outline"
          :href="`/api/imports/${of.import}/notices.txt`"
          :download="`${of.name} – report.txt`"
          >{{ t('notices.save') }}</a
        >
        <span class="grow" />
        <button class="btn" @click="emit('close')">{{ t('reader.close') }}</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.notices {
  padding: 18px 20px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

.list {
  max-height: 50vh;
  overflow-y: auto;
  margin: 12px 0;
}

a.btn {
  text-decoration: none;
}

td {
  overflow-wrap: anywhere;
}
</style>
