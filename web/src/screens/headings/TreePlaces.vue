<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { HeadingWhole } from '@/api/client'
import { decisionKey, newTerm, useReview } from '@/state/review'
import type { How } from './choice'
import NodeName from './NodeName.vue'
import { useAtSource } from './atSource'
import { useThrough } from './through'
import { useTree, type Row } from './tree'
import { labelKey } from '@/state/labelKey'

/** All places of a heading in the tree, with what each node brings; below it can be ticked what is taken. */
const how = defineModel<How>('how', { required: true })
const without = defineModel<string[]>('without', { required: true })
const props = defineProps<{ whole: HeadingWhole; language: string }>()
const emit = defineEmits<{ look: [label: string]; out: [] }>()
const { t, n, d } = useI18n()
const review = useReview()
const through = useThrough()

const { rows, isOpen, foldable, fold, outAbove, ticked, tick, showAll } = useTree(
  computed(() => props.whole),
  how,
  without,
  () => (at.value = -1),
)

// Walking by keyboard.
const at = ref(-1)
const root = ref<HTMLElement>()
const ownAt = computed(() => rows.value.findIndex((r) => r.own))
const here = computed(() =>
  at.value >= 0 && at.value < rows.value.length ? at.value : ownAt.value,
)
function go(to: number) {
  at.value = Math.max(0, Math.min(rows.value.length - 1, to))
  void nextTick(() =>
    root.value?.querySelectorAll('[role=treeitem]')[at.value]?.scrollIntoView({ block: 'nearest' }),
  )
}
function onKey(e: KeyboardEvent) {
  const row = rows.value[here.value]
  if (!row) return
  const step = { ArrowDown: 1, ArrowUp: -1, Home: -1e6, End: 1e6 }[e.key]
  if (step) go(here.value + step)
  else if (e.key === 'ArrowRight') {
    if (foldable(row) && !isOpen(row)) void fold(row)
    else go(here.value + 1)
  } else if (e.key === 'ArrowLeft') {
    if (isOpen(row) && row.below) void fold(row)
    else if (row.below) {
      const up = rows.value.findLastIndex((r, i) => i < here.value && r.depth < row.depth)
      go(up)
    } else emit('out')
  } else if (e.key === 'Enter') {
    if (row.more) showAll(row.more.of)
    else emit('look', row.label)
  } else if (e.key === ' ') tick(row)
  else return
  e.preventDefault()
  e.stopPropagation()
}
function focus() {
  root.value?.focus()
  go(ownAt.value)
}
defineExpose({ focus })

// Figures over the sample are there at once; at the source they are asked for what is in sight.
const over = ref<'sample' | 'source'>('sample')
const labels = computed(() => [...new Set(rows.value.map((r) => r.label).filter(Boolean))])
const there = useAtSource(labels, () => over.value === 'source' && through.source !== undefined)
const fig = (r: Row, narrower: boolean) => {
  if (over.value === 'source') return there.of(r.label, narrower)
  if (!props.whole.counted || !r.node) return undefined
  return narrower ? r.node.withNarrower : r.node.alone
}
function open(r: Row, narrower: boolean) {
  through.list(
    { kind: 'term', term: newTerm({ kind: 'heading', heading: r.label, narrower }) },
    r.label,
  )
}
const blocks = (label: string) =>
  through.other
    ? label === props.whole.heading
      ? [...new Set(props.whole.taken.map((x) => x.block))]
      : []
    : (review.kept.get(decisionKey('headings', labelKey(label))) ?? [])
</script>

<template>
  <div class="places">
    <div class="head">
      <span>{{ t('headings.where', { n: whole.places.length }, whole.places.length) }}</span>
      <span>{{ t('headings.alone') }}</span><span>{{ t('headings.withNarrower') }}</span
      ><span>{{ t('headings.keys') }}</span>
    </div>
    <ul
      ref="root"
      role="tree"
      tabindex="0"
      :aria-label="t('headings.tree', { heading: whole.heading })"
      :aria-activedescendant="`node-${here}`"
      @keydown="onKey"
    >
      <li
        v-for="(r, i) in rows"
        :id="`node-${i}`"
        :key="r.key"
        role="treeitem"
        :aria-level="r.depth + 1"
        :aria-expanded="foldable(r) ? isOpen(r) : undefined"
        :aria-selected="i === here"
        :aria-checked="r.below ? ticked(r) : undefined"
        :class="{
          own: r.own,
          here: i === here,
          out: r.below && how === 'some' && !ticked(r),
          spread: r.node?.spread,
        }"
        @click="at = i"
      >
        <NodeName
          :row="r"
          :how="how"
          :ticked="!!ticked(r)"
          :fixed="!!outAbove(r)"
          :foldable="!!foldable(r)"
          :open="!!isOpen(r)"
          :blocks="blocks(r.label)"
          @fold="fold(r)"
          @tick="tick(r)"
          @more="showAll($event)"
          @look="emit('look', $event)"
        />
        <template v-if="!r.more">
          <span class="fig small"
            ><button v-if="fig(r, false)" class="link" tabindex="-1" @click="open(r, false)">
              {{ n(fig(r, false)!, 'whole') }}</button
            ><template v-else>{{ fig(r, false) ?? '' }}</template></span
          >
          <span class="fig"
            ><button v-if="fig(r, true)" class="link" tabindex="-1" @click="open(r, true)">
              {{ n(fig(r, true)!, 'whole') }}</button
            ><template v-else>{{ fig(r, true) ?? '' }}</template></span
          >
          <span class="fig">{{ r.node?.keys || '' }}</span>
        </template>
      </li>
    </ul>
    <div v-if="through.source" class="row small over">
      {{ t('headings.over') }}
      <label class="row"
        ><input v-model="over" type="radio" value="sample" />{{ t('headings.sample') }}</label
      >
      <label class="row"
        ><input v-model="over" type="radio" value="source" />{{ through.source.name }}</label
      >
      <span v-if="over === 'source' && there.asking.value" aria-live="polite">{{
        t('headings.asking', { source: through.source.name })
      }}</span>
      <span v-else-if="over === 'source' && there.counted.value">{{
        t('headings.countedAt', {
          day: d(there.counted.value, 'short'),
          time: d(there.counted.value, 'time'),
        })
      }}</span>
      <span v-if="over === 'source' && there.problem.value" class="miss" role="alert">{{
        there.problem.value
      }}</span>
    </div>
  </div>
</template>

<style scoped>
.places {
  margin-top: 4px;
}

.head,
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 62px 78px 44px;
  align-items: center;
  border-bottom: 1px solid var(--line-soft);
  min-height: 27px;
}

.head {
  font: 600 11.5px/1.2 var(--ui);
  color: var(--ink-2);
}

.head span:not(:first-child),
.fig {
  text-align: right;
  padding-right: 8px;
}

ul {
  max-height: 300px;
  overflow-y: auto;
}

li.own,
li.own.here {
  background: var(--gold-soft);
}

ul:focus-visible li.here {
  box-shadow: inset 3px 0 var(--plum);
}

li.out :deep(.link.cut) {
  color: var(--ink-3);
  text-decoration: line-through;
}

li.spread :deep(.name) {
  font-weight: 600;
}

.over {
  gap: 12px;
  margin-top: 5px;
  flex-wrap: wrap;
}

.over .row {
  gap: 5px;
}

.miss {
  color: var(--miss);
}
</style>
