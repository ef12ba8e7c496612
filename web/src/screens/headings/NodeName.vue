<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import BlockStamp from '@/parts/BlockStamp.vue'
import type { How } from './choice'
import type { Row } from './tree'

/** A node of the tree: how deep it is, whether it is folded and ticked, what it is called, which blocks have it. */
defineProps<{
  row: Row
  how: How
  ticked: boolean
  /** It is out with one above it. */
  fixed: boolean
  foldable: boolean
  open: boolean
  blocks: string[]
}>()
const emit = defineEmits<{
  fold: []
  tick: []
  more: [of: NonNullable<Row['more']>['of']]
  look: [label: string]
}>()

const { t, n } = useI18n()
</script>

<template>
  <span class="name">
    <i v-for="k in row.depth" :key="k" class="ind" aria-hidden="true" />
    <button
      v-if="foldable"
      class="twist"
      tabindex="-1"
      :aria-label="t(open ? 'headings.close' : 'headings.open', { heading: row.label })"
      @click="emit('fold')"
    >
      {{ open ? '▾' : '▸' }}</button><i v-else class="twist" />
    <input
      v-if="row.below && how !== 'all'"
      type="checkbox"
      tabindex="-1"
      :checked="ticked"
      :disabled="fixed"
      :aria-label="t('headings.tick', { heading: row.label })"
      @change="emit('tick')"
    />
    <button v-if="row.more" class="link small" tabindex="-1" @click="emit('more', row.more.of)">
      {{ t('headings.more', { n: n(row.more.n, 'whole') }) }}
    </button>
    <b v-else-if="row.own" class="cut">{{ row.label }}</b>
    <button v-else class="link cut" tabindex="-1" @click="emit('look', row.label)">
      {{ row.label }}
    </button>
    <span v-if="row.above?.length" class="small cut above"
      ><template v-for="x in [...row.above].reverse()" :key="x"
        >‹ <button class="link" tabindex="-1" @click="emit('look', x)">{{ x }}</button>{{
          ' '
        }}</template
      ></span
    >
    <BlockStamp v-for="b in blocks" :key="b" :block="b" :size="15" />
    <em v-if="row.node?.spread" :title="t('headings.spreadTip', { n: row.node.carried })">{{
      t('headings.spread', { n: row.node.carried })
    }}</em>
  </span>
</template>

<style scoped>
.name {
  display: flex;
  align-items: center;
  gap: 4px;
  min-width: 0;
  height: 100%;
}

.ind {
  flex: none;
  align-self: stretch;
  width: 9px;
  margin-left: 8px;
  border-left: 1px solid var(--line);
}

.twist {
  width: 16px;
  flex: none;
  border: 0;
  background: none;
  color: var(--ink-2);
  cursor: pointer;
  padding: 0;
}

em {
  flex: none;
  font-style: normal;
  font-size: 11px;
  border: 1px solid var(--gold);
  border-radius: 8px;
  padding: 0 7px;
  background: var(--gold-soft);
}

.above {
  min-width: 0;
}
</style>
