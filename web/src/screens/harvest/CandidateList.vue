<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Suit } from '@/api/client'
import WithTip from '@/parts/WithTip.vue'
import { useRowsInSight } from '@/parts/rowsInSight'
import CandidateCells from './CandidateCells.vue'
import type { Candidate } from './candidates'
import type { Column } from './filters'
import SampleMark from '@/parts/SampleMark.vue'

/** The ranked list: only the rows in sight are drawn, so that it stays smooth with any number. */
const props = defineProps<{
  rows: Candidate[]
  selected?: string
  /** Selected together with it. */
  marked: Set<string>
  suits: Map<string, Suit>
  sort?: { column: Column; down: boolean }
  hasContrast: boolean
  hasKeys: boolean
  hasNarrower: boolean
  most: number
  title: string
  /** How many blocks have a key of their own. */
  blocks: number
}>()
const emit = defineEmits<{
  select: [c: Candidate, further: boolean]
  open: [c: Candidate]
  sort: [column: Column]
  key: [e: KeyboardEvent]
}>()

const { t } = useI18n()
const rowHeight = 30
const scroller = ref<HTMLElement>()
const { drawn, whole, show } = useRowsInSight(scroller, () => props.rows.length, rowHeight)
const columns = computed<{ id: Column; label: string }[]>(() => [
  { id: 'records', label: t('figure.records') },
  ...(props.hasNarrower
    ? ([{ id: 'withNarrower', label: t('figure.withNarrower') }] as const)
    : []),
  ...(props.hasContrast
    ? ([
        { id: 'lift', label: t('figure.lift') },
        { id: 'pull', label: t('figure.pull') },
      ] as const)
    : []),
  ...(props.hasKeys ? ([{ id: 'keys', label: t('figure.keys') }] as const) : []),
])
// Where it is narrow the words come first: the bars go, and figures stand closer.
const root = ref<HTMLElement>()
const { width } = useElementSize(root)
// What a bar for scrolling takes away from the rows is taken from their head as well.
const bar = computed(() =>
  width.value && scroller.value ? scroller.value.offsetWidth - scroller.value.clientWidth : 0,
)
const narrow = computed(() => width.value > 0 && width.value < 480)
const grid = computed(() => {
  const room = Math.max(0, String(props.most).length - 4) * 9 // for figures of many digits
  const [records, below, lift, pull, keys] = narrow.value
    ? [60 + room, 58, 52, 48, 38]
    : [(props.hasNarrower ? 88 : 96) + room, 64, 56, 50, 40]
  const columns = [
    records,
    props.hasNarrower && below,
    props.hasContrast && lift,
    props.hasContrast && pull,
    props.hasKeys && keys,
    props.blocks ? 84 : 58,
  ].filter(Boolean)
  return { '--columns': `minmax(90px, 1fr) ${columns.map((c) => `${c}px`).join(' ')}` }
})
const here = computed(() => props.rows.findIndex((r) => r.key === props.selected))

watch(here, (i) => {
  if (i >= 0) show(i)
})

function aria(column: Column) {
  if (props.sort?.column !== column) return undefined
  return props.sort.down ? 'descending' : 'ascending'
}

const focus = () => scroller.value?.focus({ preventScroll: true })
// Whoever comes here comes to work through the list: the keys are its own, unless someone is typing already.
onMounted(() => {
  if (!document.activeElement?.matches('input, textarea, select, [role=dialog] *')) focus()
})

defineExpose({ focus })
</script>

<template>
  <div ref="root" class="listing" :class="{ narrow }" :style="grid">
    <div class="head" :style="{ paddingRight: `${bar}px` }">
      <button
        class="left"
        :aria-label="t('list.sortBy', { column: t('figure.item') })"
        @click="emit('sort', 'item')"
      >
        {{ title }}<SampleMark /><span v-if="aria('item')" aria-hidden="true">{{
          sort?.down ? ' ↓' : ' ↑'
        }}</span>
      </button>
      <WithTip v-for="c in columns" :key="c.id" :text="t(`formula.${c.id}`)">
        <template #default="{ describedBy }">
          <button
            :aria-describedby="describedBy"
            :aria-label="t('list.sortBy', { column: c.label })"
            @click="emit('sort', c.id)"
          >
            {{ c.label
            }}<span v-if="aria(c.id)" aria-hidden="true">{{ sort?.down ? ' ↓' : ' ↑' }}</span>
          </button>
        </template>
      </WithTip>
      <span />
    </div>
    <div
      ref="scroller"
      class="scroller"
      role="listbox"
      tabindex="0"
      aria-multiselectable="true"
      :aria-label="title"
      :aria-activedescendant="here >= 0 ? `candidate-${here}` : undefined"
      @keydown="emit('key', $event)"
    >
      <div role="presentation" :style="whole">
        <div
          v-for="(at, place) in drawn"
          :id="`candidate-${at}`"
          :key="place"
          role="option"
          class="line"
          :class="[rows[at]?.state, { sel: at === here, marked: marked.has(rows[at]?.key) }]"
          :aria-selected="at === here || marked.has(rows[at]?.key)"
          :aria-setsize="rows.length"
          :aria-posinset="at + 1"
          @click="emit('select', rows[at], $event.shiftKey)"
          @dblclick="emit('open', rows[at])"
        >
          <CandidateCells
            v-if="rows[at]"
            :candidate="rows[at]"
            :has-contrast="hasContrast"
            :has-keys="hasKeys"
            :has-narrower="hasNarrower"
            :most="most"
            :blocks="at === here ? blocks : 0"
            :suit="suits.get(rows[at].item)"
          />
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.listing {
  display: flex;
  flex-direction: column;
  min-height: 0;
  height: 100%;
}

.narrow :deep(.bar) {
  display: none;
}

.narrow :deep(.fig),
.narrow .head button {
  padding-inline: 4px;
}

.head,
.line {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 0;
  align-items: center;
}

.head {
  border-bottom: 1px solid var(--line);
}

.head button {
  border: 0;
  background: none;
  font: 600 11.5px var(--ui);
  color: var(--ink-2);
  text-align: right;
  padding: 6px 8px;
  cursor: pointer;
  white-space: nowrap;
}

.head button.left {
  text-align: left;
}

.head button:hover {
  color: var(--ink);
}

.scroller {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  outline: none;
}

.line {
  height: 30px;
  contain: strict;
  border-bottom: 1px solid var(--line-soft);
  cursor: default;
}

.line:hover {
  background: var(--card);
}

.line.marked {
  background: var(--line-soft);
}

.line.sel {
  background: var(--gold-soft);
}

.scroller:focus-visible .line.sel {
  box-shadow: inset 0 0 0 1.5px var(--plum);
  border-radius: 3px;
}
</style>
