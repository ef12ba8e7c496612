<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type DoublesRule, type FileQuestion, type Import } from '@/api/client'
import { useImports } from '@/state/imports'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import ColumnsDialog from './ColumnsDialog.vue'
import DoublesDialog from './DoublesDialog.vue'
import TagsDialog from './TagsDialog.vue'

/** The files that have to be explained before they can be read; each can be left out. */
const props = defineProps<{ kind: Import['kind'] }>()
const { t, te } = useI18n()
const imports = useImports()
const notes = useNotes()
const problem = useProblem()

const files = computed(() => imports.asking.filter((i) => i.kind === props.kind))
const open = ref<{ file: Import; asked: FileQuestion }>()

async function guarded(work: () => Promise<void>) {
  try {
    await work()
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
}
const question = (i: Import) =>
  ask(api.GET('/api/imports/{import}/question', { params: { path: { import: i.id } } }))
const look = (file: Import) =>
  guarded(async () => {
    open.value = { file, asked: await question(file) }
  })
const rule = (i: Import, doubles: DoublesRule) =>
  guarded(() => imports.answer(i, { doubles, remember: false }))
const out = (i: Import) => guarded(() => imports.giveUp(i))

/** As what a file can be brought in that was taken for another thing. */
const kinds = (i: Import): Import['kind'][] =>
  i.format === 'skos' ? ['vocabulary'] : ['sample', 'keys']
const as = (i: Import, kind: Import['kind']) =>
  guarded(() => imports.answer(i, { kind, remember: false }))

const said = (i: Import) =>
  i.asks === 'kind'
    ? t(i.format === 'skos' ? 'asked.isVocabulary' : 'asked.isRecords', {
        format: te(`format.${i.format}`) ? t(`format.${i.format}`) : (i.format ?? ''),
      })
    : i.asks === 'doubles'
      ? t('asked.doubles', { n: i.doubles ?? 0 }, i.doubles ?? 0)
      : t(`asked.${i.asks}`)
</script>

<template>
  <ul v-if="files.length" class="asked" aria-live="polite">
    <li v-for="i in files" :key="i.id">
      <b class="cut">{{ i.name }}</b>
      <span class="grow gold">{{ said(i) }}</span>
      <template v-if="i.asks === 'doubles'">
        <button
          v-for="r in ['apart', 'join', 'leave'] as const"
          :key="r"
          class="btn bare"
          @click="rule(i, r)"
        >
          {{ t(`asked.${r}`) }}
        </button>
        <button class="btn outline" @click="look(i)">{{ t('asked.look') }}</button>
      </template>
      <template v-else-if="i.asks === 'kind'"
        ><button
          v-for="k in kinds(i)"
          :key="k"
          class="btn"
          :class="{ outline: k === 'keys' }"
          @click="as(i, k)"
        >
          {{ t(`asked.as.${k}`) }}
        </button></template
      >
      <button v-else class="btn" @click="look(i)">
        {{ i.asks === 'columns' ? t('asked.name') : t('asked.explain') }}
      </button>
      <button class="btn bare" :aria-label="t('asked.giveUpOne', { name: i.name })" @click="out(i)">
        {{ t('asked.giveUp') }}
      </button>
    </li>
  </ul>
  <template v-if="open">
    <ColumnsDialog
      v-if="open.asked.what === 'columns'"
      :file="open.file"
      :columns="open.asked.settings.columns!"
      @close="open = undefined"
    />
    <TagsDialog
      v-else-if="open.asked.what === 'tags'"
      :file="open.file"
      :asked="open.asked"
      @close="open = undefined"
    />
    <DoublesDialog v-else :file="open.file" :asked="open.asked" @close="open = undefined" />
  </template>
</template>

<style scoped>
li {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 7px 8px;
  border-bottom: 1px solid var(--line-soft);
  background: var(--gold-soft);
  flex-wrap: wrap;
}

b {
  max-width: 260px;
}
</style>
