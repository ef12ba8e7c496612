<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { CheckSuggestion, Edit, SheetLine } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { newId } from '@/state/edits'

/** One line of the version that is checked, and what a colleague would have in its place. */
const props = defineProps<{ line: SheetLine; open: boolean }>()
const emit = defineEmits<{
  suggest: [s: Pick<CheckSuggestion, 'line' | 'words' | 'says' | 'edits'>]
}>()
const { t } = useI18n()

type What = 'otherwise' | 'out' | 'more' | 'words'
const what = ref<What>()
const text = ref('')
const words = ref('')
const wanted = computed(() => (props.line.term ? ['otherwise', 'out', 'more', 'words'] : ['words']))
const typed = computed(() => what.value === 'otherwise' || what.value === 'more')
const ready = computed(() =>
  typed.value ? text.value.trim() : what.value === 'words' ? words.value.trim() : what.value,
)

function edits(): Edit[] | undefined {
  const { block, term } = props.line
  if (!block || !term) return undefined
  if (what.value === 'otherwise')
    return [{ op: 'patchTerm', block, id: term, patch: { kind: 'text', text: text.value.trim() } }]
  if (what.value === 'out') return [{ op: 'removeTerm', block, id: term }]
  if (what.value === 'more')
    return [
      {
        op: 'addTerm',
        block,
        term: { id: newId(), kind: 'text', text: text.value.trim(), field: 'text', on: true },
      },
    ]
  return undefined
}
function suggest() {
  if (!ready.value || !what.value) return
  emit('suggest', {
    line: `${props.line.number} ${props.line.text}`.slice(0, 2000),
    words: words.value,
    says: what.value === 'words' ? '' : t(`check.would.${what.value}`, { text: text.value.trim() }),
    edits: edits(),
  })
  what.value = undefined
  text.value = words.value = ''
}
function begin() {
  what.value = wanted.value[0] as What
}
</script>

<template>
  <li class="line">
    <div class="row">
      <span class="number small">{{ line.number }}</span>
      <BlockStamp v-if="line.block" :block="line.block" :size="14" />
      <span class="mono text">{{ line.text }}</span>
      <span class="grow" />
      <button
        v-if="open && !what"
        class="link small"
        :aria-label="t('check.suggestFor', { n: line.number })"
        @click="begin"
      >
        {{ t('check.suggest') }}
      </button>
    </div>
    <form v-if="what" class="make" @submit.prevent="suggest">
      <select v-model="what" class="field" :aria-label="t('check.what')">
        <option v-for="x in wanted" :key="x" :value="x">
          {{ t(`check.would.${x}`, { text: '…' }) }}
        </option>
      </select>
      <input
        v-if="typed"
        v-model="text"
        class="field mono"
        maxlength="500"
        :aria-label="t('check.text')"
      />
      <input
        v-model="words"
        class="field why"
        maxlength="4000"
        :aria-label="t('check.why')"
        :placeholder="t('check.why')"
      />
      <button class="btn" :disabled="!ready">{{ t('check.suggestIt') }}</button>
      <button type="button" class="btn bare" @click="what = undefined">
        {{ t('act.cancel') }}
      </button>
    </form>
  </li>
</template>

<style scoped>
.line {
  border-bottom: 1px solid var(--line-soft);
  padding: 4px 0;
}

.number {
  min-width: 20px;
}

.text {
  font-size: 12.5px;
  overflow-wrap: anywhere;
}

.make {
  display: flex;
  flex-wrap: wrap;
  gap: 7px;
  padding: 7px 0 7px 26px;
}

.make .field {
  width: auto;
}

.make .why {
  flex: 1 1 100%;
}
</style>
