<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Bench, Block, Edit, Remark, Term } from '@/api/client'
import DraftField from '@/parts/DraftField.vue'
import OnSwitch from '@/parts/OnSwitch.vue'
import { useInstead } from '@/parts/instead'
import { useBench } from '@/state/bench'
import { useLineActs } from '@/state/lineActs'
import { termText } from '@/state/review'
import { useSources } from '@/state/sources'
import TermActs from './TermActs.vue'
import TermFigures from './TermFigures.vue'
import TermName from './TermName.vue'
import TermRemarks from './TermRemarks.vue'

/** One line of a block: switched on or off, with what it finds. Alt and the arrows move it. */
const props = defineProps<{
  block: Block
  term: Term
  figures?: Bench['blocks'][number]['terms'][number]
  most: number
  first: boolean
  last: boolean
  keys: boolean
  remarks: Remark[]
  ordered: boolean // by hand: it can be moved
  sample: boolean
  whole: number
}>()
const emit = defineEmits<{ group: [] }>()

const { t } = useI18n()
const bench = useBench()
const sources = useSources()
const instead = useInstead()
const there = computed(() => sources.counted?.terms[props.term.id])
/** What the source cannot be asked of this line; what it keeps under a name is the same of every line, and told in its count. */
const lacks = computed(() => there.value?.notes.find((x) => x.kind !== 'wider'))

const line = useLineActs(() => props)
const toggle = (on: boolean): Edit => ({
  op: 'patchTerm',
  block: props.block.id,
  id: props.term.id,
  patch: { on },
})

function onKey(e: KeyboardEvent) {
  const by = { ArrowUp: -1, ArrowDown: 1 }[e.key]
  if (!by || !e.altKey) return
  e.preventDefault()
  acts.value?.move(by)
}

/** Resting on a line shows what the block would be with it switched the other way. */
function rest(on: boolean) {
  bench.rest(
    on
      ? {
          edits: [toggle(!props.term.on)],
          label: `${props.term.on ? '−' : '+'} ${termText(props.term)}`,
          block: props.block.id,
        }
      : undefined,
  )
}

const acts = ref<InstanceType<typeof TermActs>>()
const noting = ref(false)
function setNote(note: string) {
  noting.value = false
  line.setNote(note)
}
</script>

<template>
  <tr
    :class="{ off: !term.on }"
    @mouseenter="rest(true)"
    @mouseleave="rest(false)"
    @keydown="onKey"
  >
    <td class="left onoff">
      <OnSwitch
        :model-value="term.on"
        :label="t('blocks.switch', { term: termText(term) })"
        @update:model-value="line.setOn"
      />
    </td>
    <td class="left">
      <span class="lab">
        <TermName :block="block" :term="term" :figures="figures" />
        <TermRemarks :block="block" :term="term" :figures="figures" :remarks="remarks" />
        <DraftField
          v-if="term.note || noting"
          class="said"
          :value="term.note ?? ''"
          :maxlength="1000"
          :placeholder="t('blocks.noteHint')"
          :aria-label="t('blocks.noteOn', { term: termText(term) })"
          :autofocus="noting"
          @typed="setNote"
          @blur="noting = false"
        />
        <span v-if="lacks" class="note" :title="instead(lacks)">* {{ instead(lacks) }}</span>
      </span>
    </td>
    <TermFigures
      :block="block"
      :term="term"
      :figures="figures"
      :most="most"
      :whole="whole"
      :keys="keys"
      :sample="sample"
    />
    <td class="acts">
      <TermActs
        ref="acts"
        :block="block"
        :term="term"
        :first="first"
        :last="last"
        :ordered="ordered"
        @note="noting = true"
        @group="emit('group')"
      />
    </td>
  </tr>
</template>

<style scoped>
tr:hover :deep(td) {
  background: var(--card);
}

.onoff {
  width: 42px;
}

tr :deep(td) {
  vertical-align: middle;
}

.lab {
  min-width: 110px;
  display: inline-flex;
  vertical-align: middle;
  flex-wrap: wrap;
  gap: 2px 7px;
  align-items: center;
  overflow-wrap: anywhere;
}

.said {
  width: 100%;
  border: 0;
  border-bottom: 1px solid transparent;
  background: none;
  font-size: 12px;
  color: var(--ink-2);
}

.said:hover,
.said:focus {
  border-bottom-color: var(--line);
}

.note {
  font-size: 11.5px;
  color: var(--gold-deep);
  background: var(--gold-soft);
  border-radius: 4px;
  padding: 1px 6px;
}

.off .lab {
  color: var(--ink-3);
}

.acts {
  white-space: nowrap;
  width: 110px;
}

@container block (max-width: 800px) {
  .acts {
    width: 96px;
  }
}
</style>
