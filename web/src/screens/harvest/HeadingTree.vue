<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { figures, useFigure } from '@/figures'
import BlockStamp from '@/parts/BlockStamp.vue'
import { decisionKey, useReview } from '@/state/review'
import { labelKey } from '@/state/labelKey'

/** The headings in their tree: a branch that holds much in many small headings stands out. */
const props = defineProps<{ selected?: string }>()
const emit = defineEmits<{ find: [label: string]; key: [e: KeyboardEvent] }>()
const { t, n } = useI18n()
const review = useReview()

const found = useFigure(figures.headingTree, () => null)
const nodes = computed(() => found.data.value?.nodes ?? [])
const of = computed(() => Math.max(1, found.data.value?.records ?? 1))
const closed = ref(new Set<string>())
// A heading that stands in several places is closed at each by itself.
const keyed = computed(() => {
  const path: string[] = []
  return nodes.value.map((node, i) => {
    path.length = node.depth
    path.push(node.label)
    return { ...node, key: path.join(' › '), opens: (nodes.value[i + 1]?.depth ?? 0) > node.depth }
  })
})
const shown = computed(() => {
  const out: (typeof keyed.value)[number][] = []
  let below = -1
  for (const node of keyed.value) {
    if (below >= 0 && node.depth > below) continue
    below = closed.value.has(node.key) ? node.depth : -1
    out.push(node)
  }
  return out
})
function toggle(key: string) {
  const next = new Set(closed.value)
  if (!next.delete(key)) next.add(key)
  closed.value = next
}
function onKey(e: KeyboardEvent) {
  const by = { ArrowDown: 1, ArrowUp: -1 }[e.key]
  if (!by || e.shiftKey) return emit('key', e)
  e.preventDefault()
  const at = shown.value.findIndex((node) => same(node.label))
  for (let i = at + by; i >= 0 && i < shown.value.length; i += by) {
    // A heading in several places is gone past where it comes again.
    if (shown.value[i].records && !same(shown.value[i].label))
      return emit('find', shown.value[i].label)
  }
}
const blocks = (label: string) => review.kept.get(decisionKey('headings', labelKey(label))) ?? []
const same = (label: string) =>
  props.selected !== undefined && labelKey(props.selected) === labelKey(label)
</script>

<template>
  <div class="holder">
    <div class="head small" aria-hidden="true">
      <span>{{ t('tree.heading') }}</span><span>{{ t('figure.records') }}</span
      ><span>{{ t('figure.withNarrower') }}</span
      ><span>{{ t('figure.keys') }}</span>
    </div>
    <v-progress-linear
      v-if="found.isPending.value"
      indeterminate
      color="primary"
      :aria-label="t('harvest.counting')"
    />
    <p v-else-if="!nodes.length" class="small none">{{ t('tree.none') }}</p>
    <ul v-else role="tree" tabindex="0" :aria-label="t('tree.label')" @keydown="onKey">
      <li
        v-for="node in shown"
        :key="node.key"
        role="treeitem"
        :aria-level="node.depth + 1"
        :aria-expanded="node.opens ? !closed.has(node.key) : undefined"
        :aria-selected="same(node.label)"
        :class="{ sel: same(node.label), spread: node.spread }"
      >
        <span class="name" :style="{ paddingLeft: `${node.depth * 17}px` }">
          <button
            v-if="node.opens"
            class="twist"
            :aria-label="
              t(closed.has(node.key) ? 'tree.open' : 'tree.close', { heading: node.label })
            "
            @click="toggle(node.key)"
          >
            {{ closed.has(node.key) ? '▸' : '▾' }}</button><i v-else class="twist" />
          <button class="label cut" :disabled="!node.records" @click="emit('find', node.label)">
            {{ node.label }}
          </button>
          <BlockStamp v-for="b in blocks(node.label)" :key="b" :block="b" :size="15" />
          <em v-if="node.spread" :title="t('tree.spreadTip', { n: node.headings })">{{
            t('tree.spread', { n: node.headings })
          }}</em>
        </span>
        <span class="fig">{{ node.records ? n(node.records, 'whole') : '–' }}</span>
        <span class="fig"
          ><i class="bar" :style="{ width: `${(node.withNarrower / of) * 60}px` }" />{{
            n(node.withNarrower, 'whole')
          }}</span
        >
        <span class="fig">{{ node.keys || '' }}</span>
      </li>
    </ul>
    <p v-if="found.data.value?.cut" class="small">{{ t('tree.cut') }}</p>
  </div>
</template>

<style scoped>
.holder {
  display: flex;
  flex-direction: column;
  min-height: 0;
  height: 100%;
}

ul {
  overflow-y: auto;
  flex: 1;
  min-height: 0;
}

.head,
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 62px 112px 46px;
  align-items: center;
  border-bottom: 1px solid var(--line-soft);
  min-height: 28px;
}

.head {
  font-weight: 600;
  padding-right: 10px;
}

.head span:not(:first-child),
.fig {
  text-align: right;
  padding: 0 7px;
  white-space: nowrap;
}

.name {
  display: flex;
  align-items: center;
  gap: 4px;
  min-width: 0;
}

.twist {
  width: 18px;
  flex: none;
  border: 0;
  background: none;
  color: var(--ink-2);
  cursor: pointer;
  padding: 0;
}

.label {
  border: 0;
  background: none;
  padding: 2px 0;
  text-align: left;
  cursor: pointer;
}

.label:disabled {
  color: var(--ink-2);
  cursor: default;
}

li.sel {
  background: var(--gold-soft);
}

li.spread .label {
  font-weight: 650;
}

em {
  flex: none;
  font-style: normal;
  font-size: 11px;
  border: 1px solid var(--gold);
  border-radius: 8px;
  padding: 0 7px;
  margin-left: 5px;
  background: var(--gold-soft);
}

.bar {
  display: inline-block;
  height: 7px;
  margin-right: 6px;
  background: var(--plum);
  opacity: 0.5;
  border-radius: 1px;
}

li.spread .bar {
  background: var(--gold-bright);
  opacity: 1;
}

.none {
  padding: 12px;
}
</style>
