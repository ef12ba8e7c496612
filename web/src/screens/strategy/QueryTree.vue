<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { QueryPart } from '@/api/client'

/** A part of a query with what it is made of; any part points at its place in the text. */
const props = defineProps<{ part: QueryPart; depth?: number }>()
const emit = defineEmits<{ point: [part: QueryPart] }>()
const { t, n } = useI18n()

const open = ref((props.depth ?? 0) < 3)
const first = 40
const all = ref(false)
</script>

<template>
  <div class="part">
    <div class="row line">
      <button
        v-if="part.parts?.length"
        class="fold"
        :aria-expanded="open"
        :aria-label="t(open ? 'pasted.fold' : 'pasted.unfold', { what: t(`pasted.op.${part.op}`) })"
        @click="open = !open"
      >
        {{ open ? '▾' : '▸' }}
      </button>
      <button class="what" :title="part.says" @click="emit('point', part)">
        <b v-if="part.parts?.length">{{ t(`pasted.op.${part.op}`) }}</b><span
          v-else
          class="mono"
          :class="{ unread: part.op === 'unread' }"
          >{{ part.query }}</span
        >
      </button>
      <span v-if="!open && part.parts?.length" class="small">{{
        t('pasted.parts', part.parts.length)
      }}</span>
      <span class="grow" />
      <span class="num">{{ part.records === undefined ? '' : n(part.records, 'whole') }}</span>
    </div>
    <ul v-if="open && part.parts?.length">
      <li v-for="(p, i) in all ? part.parts : part.parts.slice(0, first)" :key="i">
        <QueryTree :part="p" :depth="(depth ?? 0) + 1" @point="emit('point', $event)" />
      </li>
      <li v-if="!all && part.parts.length > first">
        <button class="link small" @click="all = true">
          {{ t('pasted.showAll', { n: n(part.parts.length, 'whole') }) }}
        </button>
      </li>
      <li v-if="part.more" class="small">
        {{ t('pasted.moreParts', { n: n(part.more, 'whole') }) }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.line {
  gap: 4px;
  font-size: 12.5px;
  border-bottom: 1px solid var(--line-soft);
  min-height: 26px;
}

.fold,
.what {
  border: 0;
  background: none;
  padding: 2px 4px;
  color: inherit;
  font: inherit;
  cursor: pointer;
}

.fold {
  width: 24px;
  min-height: 24px;
  color: var(--ink-2);
}

.what {
  text-align: left;
  overflow-wrap: anywhere;
  min-height: 24px;
}

.what:hover {
  color: var(--plum);
}

.unread {
  text-decoration: underline wavy var(--miss);
}

ul {
  list-style: none;
  margin: 0;
  padding-left: 16px;
  border-left: 1px solid var(--line);
  margin-left: 10px;
}
</style>
