<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, HeadingWhole } from '@/api/client'
import { newTerm } from '@/state/review'
import { useThrough } from './through'
import SampleMark from '@/parts/SampleMark.vue'

/** The entry terms of a heading as authors write them: what each finds and adds, ticked where it is in use and new. */
const ticked = defineModel<string[]>({ required: true })
const props = defineProps<{ whole: HeadingWhole; block?: Block }>()
const { t, n } = useI18n()
const through = useThrough()

const first = 10
const all = ref(false)
const shown = computed(() =>
  all.value ? props.whole.entryTerms : props.whole.entryTerms.slice(0, first),
)
type Word = HeadingWhole['entryTerms'][number]
function toggle(w: Word) {
  ticked.value = ticked.value.includes(w.text)
    ? ticked.value.filter((x) => x !== w.text)
    : [...ticked.value, w.text]
}
function open(w: Word) {
  through.list(
    { kind: 'term', term: newTerm({ kind: 'text', text: w.text, field: 'text' }) },
    w.text,
  )
}
</script>

<template>
  <section :aria-label="t('headings.words')">
    <h3 class="sect">{{ t('headings.words') }}<SampleMark /></h3>
    <p v-if="!whole.entryTerms.length" class="small">{{ t('headings.wordsNone') }}</p>
    <ul>
      <li v-for="w in shown" :key="w.text">
        <label class="row"
          ><input
            type="checkbox"
            :checked="ticked.includes(w.text)"
            :disabled="w.covered"
            @change="toggle(w)"
          /><span class="mono cut word" :title="w.text">{{ w.text }}</span
          ><span v-if="w.forms.length" class="small mono cut forms" :title="w.forms.join(', ')">{{
            w.forms.join(', ')
          }}</span
          ><span v-if="w.language" class="small">{{ w.language }}</span></label
        >
        <span class="grow" />
        <span
          v-if="w.covered && block"
          class="small"
          :title="t('headings.covered', { block: block.name })"
          >{{ t('headings.inBlock', { block: block.name }) }}</span
        >
        <span
          v-else-if="w.adds && block"
          class="small gold"
          :title="t('headings.addsTip', { n: n(w.adds, 'whole'), block: block.name }, w.adds)"
          >{{ t('headings.adds', { n: n(w.adds, 'whole') }) }}</span
        >
        <button v-if="w.records" class="link fig" @click="open(w)">
          {{ n(w.records, 'whole') }}</button><span v-else class="fig small">{{
          whole.counted ? 0 : ''
        }}</span>
        <span class="keys small">{{
          w.keys ? t('headings.keysOf', { n: w.keys }, w.keys) : ''
        }}</span>
      </li>
    </ul>
    <button
      v-if="whole.entryTerms.length > first"
      class="link small"
      :aria-expanded="all"
      @click="all = !all"
    >
      {{
        all
          ? t('headings.wordsFirst', { n: first })
          : t('headings.wordsAll', { n: whole.entryTerms.length })
      }}
    </button>
  </section>
</template>

<style scoped>
li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 25px;
  border-bottom: 1px solid var(--line-soft);
}

label {
  gap: 7px;
  min-width: 0;
  overflow: hidden;
  flex: 0 1 auto;
}

li > span,
li > button,
label .mono {
  white-space: nowrap;
}

.word {
  flex: none;
  max-width: 250px;
}

.forms {
  min-width: 0;
}

.fig {
  min-width: 44px;
  text-align: right;
}

.keys {
  min-width: 44px;
  text-align: right;
}
</style>
