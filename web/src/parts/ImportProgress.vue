<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { CallError, type Import } from '@/api/client'
import { useImports } from '@/state/imports'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import AskedFiles from './files/AskedFiles.vue'

/** The files of one kind that are on their way in, and those that did not get in, with why. */
defineProps<{ kind: Import['kind'] }>()

const { t, n } = useI18n()
const imports = useImports()
const notes = useNotes()
const problem = useProblem()

const size = (bytes: number) =>
  bytes < 1e6
    ? t('size.kb', { n: n(Math.ceil(bytes / 1e3), 'whole') })
    : t('size.mb', { n: n(bytes / 1e6, 'one') })
async function giveUp(i: Import) {
  try {
    await imports.giveUp(i)
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
}
const said = (i: Import) => (i.error ? problem(new CallError(i.error)) : '')
</script>

<template>
  <AskedFiles :kind="kind" />
  <ul class="imports" aria-live="polite">
    <li v-for="u in imports.uploads.filter((x) => x.kind === kind)" :key="`u${u.id}`">
      <b class="cut">{{ u.file.name }}</b>
      <template v-if="u.error">
        <span class="wrong grow" role="alert">{{ problem(u.error) }}</span>
        <button
          v-if="u.error.problem.type === 'same-file' || u.error.passing"
          class="btn outline"
          @click="imports.again(u)"
        >
          {{ t('import.again') }}
        </button>
        <button class="btn bare" @click="imports.drop(u)">{{ t('act.dismiss') }}</button>
      </template>
      <template v-else>
        <progress
          :value="u.sent"
          :max="u.file.size || 1"
          :aria-label="t('import.sending', { name: u.file.name })"
        />
        <span class="small grow">{{
          t('import.sent', { sent: size(u.sent), of: size(u.file.size) })
        }}</span>
        <button
          class="btn bare"
          :aria-label="t('import.giveUpOne', { name: u.file.name })"
          @click="u.stop?.()"
        >
          {{ t('import.giveUp') }}
        </button>
      </template>
    </li>
    <li v-for="i in imports.reading.filter((x) => x.kind === kind)" :key="`i${i.id}`">
      <b class="cut">{{ i.name }}</b>
      <progress
        :value="i.bytesRead"
        :max="i.bytes || 1"
        :aria-label="t('import.reading', { name: i.name })"
      />
      <span class="small grow">{{
        i.waits
          ? t('import.waits')
          : i.state === 'waiting'
            ? t('import.waiting')
            : t('import.read', { n: n(i.records, 'whole') }, i.records)
      }}</span>
      <button
        class="btn bare"
        :aria-label="t('import.giveUpOne', { name: i.name })"
        @click="giveUp(i)"
      >
        {{ t('import.giveUp') }}
      </button>
    </li>
    <li v-for="i in imports.failed.filter((x) => x.kind === kind)" :key="`f${i.id}`">
      <b class="cut">{{ i.name }}</b>
      <span class="wrong grow" role="alert">{{ said(i) }}</span>
      <button class="btn bare" @click="imports.dismiss(i)">{{ t('act.dismiss') }}</button>
    </li>
  </ul>
</template>

<style scoped>
li {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 7px 8px;
  border-bottom: 1px solid var(--line-soft);
}

b {
  max-width: 260px;
}
</style>
