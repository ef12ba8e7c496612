<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Block, NearMiss, Term } from '@/api/client'
import DropMenu from '@/parts/DropMenu.vue'
import { useBench } from '@/state/bench'
import { itemOf, useDecide } from '@/state/decide'
import { newTerm, termText } from '@/state/review'
import SampleMark from '@/parts/SampleMark.vue'

/** What stands in a study and is all but a term of the block that misses it, each with what would match it. */
const props = defineProps<{ block: Block; near: NearMiss[] }>()
const { t, n } = useI18n()
const bench = useBench()
const { add, addEdits } = useDecide()

const mendOf = (m: NearMiss): Term => newTerm({ ...m.mend, id: '' })
const mended = (m: NearMiss) =>
  itemOf({ kind: m.mend.kind, item: m.mend.heading ?? m.mend.text ?? m.text })

function rest(m?: NearMiss) {
  const edits = m ? addEdits(props.block, mendOf(m)) : []
  bench.rest(
    m && edits.length
      ? { edits, label: `+ ${termText(m.mend)}`, block: props.block.id }
      : undefined,
  )
}

function take(m: NearMiss) {
  bench.rest(undefined)
  add(props.block, mendOf(m), m.mend.kind === 'near' ? [] : mended(m))
}
</script>

<template>
  <h3 class="sect">{{ t('nearMiss.title', { block: block.name }) }}<SampleMark /></h3>
  <ul>
    <li
      v-for="m in near"
      :key="m.kind + termText(m.mend)"
      @mouseenter="rest(m)"
      @mouseleave="rest()"
    >
      <span class="what"
        ><span class="mono nearly">{{ m.text }}</span
        >{{ ' ' }}
        <span class="small">{{
          t(`nearMiss.${m.kind}`, { term: m.term, block: block.name })
        }}</span></span
      >
      <span v-if="m.price !== undefined" class="price" :title="t('formula.price')"
        >+{{ n(m.price, 'whole') }}</span
      >
      <button
        class="btn bare"
        :aria-label="t('coverage.addOne', { item: termText(m.mend), block: block.name })"
        @focus="rest(m)"
        @blur="rest()"
        @click="take(m)"
      >
        {{ t('act.add') }}</button><DropMenu v-if="m.mend.kind !== 'near'" :item="mended(m)" />
    </li>
  </ul>
</template>

<style scoped>
h3 {
  margin-top: 12px;
}

li {
  display: flex;
  align-items: baseline;
  gap: 8px;
  padding: 3px 0;
  border-bottom: 1px solid var(--line-soft);
}

li:hover,
li:focus-within {
  background: var(--gold-soft);
}

.what {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}

.nearly {
  text-decoration: underline wavy var(--gold) 1px;
  text-underline-offset: 3px;
}

.price {
  font-variant-numeric: tabular-nums;
}

.btn {
  padding: 0 2px;
}
</style>
