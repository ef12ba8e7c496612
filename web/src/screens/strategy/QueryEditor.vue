<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { QueryFinding } from '@/api/client'
import { stretches, unit } from './pasted'

/** Where a query is pasted: what is wrong lies lit behind it. */
const text = defineModel<string>({ required: true })
const props = defineProps<{ findings: QueryFinding[]; chosen: number }>()
const { t } = useI18n()
const input = ref<HTMLTextAreaElement>()
const behind = ref<HTMLElement>()

/** Of a finding about much of the text its beginning alone is lit, so that the others can be told apart. */
const shown = computed(() => {
  const most = Math.max(40, [...text.value].length * 0.4)
  return stretches(
    text.value,
    props.findings.map((f, i) =>
      f.to - f.from > most && i !== props.chosen ? { from: f.from, to: f.from + 1 } : f,
    ),
  )
})
const follow = () => {
  if (behind.value && input.value) behind.value.scrollTop = input.value.scrollTop
}

/** Shows a place: of a finding, or of a part. */
async function point(f: { from: number; to: number }) {
  await nextTick()
  input.value?.focus()
  input.value?.setSelectionRange(unit(text.value, f.from), unit(text.value, f.to))
}
defineExpose({ point })
</script>

<template>
  <div class="editor">
    <div ref="behind" class="behind" aria-hidden="true">
      <span
        v-for="(s, i) in shown"
        :key="i"
        :class="{ lit: s.findings.length, chosen: s.findings.includes(chosen) }"
        >{{ s.text }}</span>{{ '\n' }}
    </div>
    <textarea
      ref="input"
      v-model="text"
      :aria-label="t('pasted.text')"
      :placeholder="t('pasted.placeholder')"
      spellcheck="false"
      maxlength="1048576"
      @scroll="follow"
    />
  </div>
</template>

<style scoped>
.editor {
  position: relative;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--white);
  height: 210px;
  resize: vertical;
  overflow: hidden;
}

.behind,
textarea {
  position: absolute;
  inset: 0;
  padding: 9px 11px;
  font: 500 13px/1.55 var(--mono);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  overflow-y: scroll;
  border: 0;
  margin: 0;
}

.behind {
  color: transparent;
  pointer-events: none;
}

textarea {
  width: 100%;
  height: 100%;
  background: transparent;
  resize: none;
  color: var(--ink);
}

.lit {
  background: var(--gold-soft);
  box-shadow: 0 2px 0 var(--gold);
}

.chosen {
  background: #f6e3bc;
}
</style>
