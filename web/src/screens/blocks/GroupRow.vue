<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Bench, Block } from '@/api/client'
import OnSwitch from '@/parts/OnSwitch.vue'
import { useReview } from '@/state/review'

/** Terms under one name, closed up into a line: what they find together. */
const props = defineProps<{
  block: Block
  group: NonNullable<Bench['blocks'][number]['groups']>[number]
  open: boolean
  columns: string[]
  most: number
}>()
const emit = defineEmits<{ toggle: [] }>()
const { t, n } = useI18n()
const review = useReview()

const terms = computed(() => props.block.terms.filter((x) => x.group === props.group.name))
const on = computed(() => terms.value.some((x) => x.on))
const said = () => ({ group: props.group.name, block: props.block.name })
const all = (patch: object) =>
  terms.value.map((x) => ({ op: 'patchTerm' as const, block: props.block.id, id: x.id, patch }))
function setOn(to: boolean) {
  review.change({ key: to ? 'groupOn' : 'groupOff', params: said() }, { edits: all({ on: to }) })
}
function dissolve() {
  review.change({ key: 'dissolve', params: said() }, { edits: all({ group: '' }) })
}
const figure = (c: string) =>
  c === 'termRecords'
    ? props.group.records
    : c === 'onlyHere'
      ? props.group.onlyHere
      : c === 'termKeys'
        ? props.group.keys
        : undefined
</script>

<template>
  <tr class="group">
    <td class="left">
      <OnSwitch
        :model-value="on"
        :label="t('group.switch', { group: group.name })"
        @update:model-value="setOn"
      />
    </td>
    <td class="left">
      <button
        class="link"
        :aria-expanded="open"
        :aria-label="t(open ? 'group.close' : 'group.open', { group: group.name })"
        @click="emit('toggle')"
      >
        <span aria-hidden="true">{{ open ? '▾' : '▸' }}</span> <b>{{ group.name }}</b>
      </button>
      <span class="small">{{ t('group.terms', { n: group.terms }, group.terms) }}</span>
    </td>
    <td v-for="c in columns" :key="c" :class="{ left: c === 'grows' }">
      {{ figure(c) === undefined ? '' : n(figure(c)!, 'whole') }}
    </td>
    <td>
      <button
        class="link small"
        :aria-label="t('group.dissolveOne', { group: group.name })"
        @click="dissolve"
      >
        {{ t('group.dissolve') }}
      </button>
    </td>
  </tr>
</template>

<style scoped>
.group td {
  background: var(--card);
}

.left .small {
  margin-left: 7px;
}
</style>
