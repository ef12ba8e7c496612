<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { RecordHead } from '@/api/client'
import { useReview } from '@/state/review'
import { useReader } from './reader'

/** The records of the reader, a page at a time, with those that are marked. */
const props = defineProps<{ heads: RecordHead[]; from: number; total: number }>()
const emit = defineEmits<{ follow: [] }>()
/** The place in the whole list of the record that is read. */
const at = defineModel<number>({ required: true })
const { t, n } = useI18n()
const review = useReview()
const reader = useReader()
const after = () => props.from + props.heads.length
</script>

<template>
  <div class="side">
    <div class="row small marks">
      <template v-if="reader.marked.size">
        <b>{{ t('reader.marked', reader.marked.size) }}</b>
        <button class="link" @click="reader.unmark()">{{ t('reader.unmark') }}</button>
      </template>
      <span v-else-if="total > 1"><kbd>M</kbd> {{ t('reader.marks') }}</span>
      <span class="grow" />
      <button v-if="total" class="link" @click="emit('follow')">{{ t('reader.follow') }}</button>
    </div>
    <ol class="list" tabindex="0" :aria-label="t('reader.list')">
      <li v-for="(r, i) in heads" :key="r.id" class="line" :class="{ here: from + i === at }">
        <input
          v-if="total > 1"
          type="checkbox"
          :checked="reader.marked.has(r.id)"
          :aria-label="t('reader.markThis', { title: r.title || t('record.noTitle') })"
          @change="reader.mark(r.id)"
        />
        <button :aria-current="from + i === at" @click="at = from + i">
          <span class="title">{{ r.title || t('record.noTitle') }}</span>
          <span class="small"
            >{{ [r.byline, r.year || undefined].filter(Boolean).join(' ')
            }}<template v-if="r.key"> · {{ t('record.key') }}</template
            ><template v-if="!r.indexed"> · {{ t('record.unindexed') }}</template
            ><b v-if="review.shelf.has(r.id)"> · {{ t('shelf.on') }}</b></span
          >
        </button>
      </li>
      <li v-if="total > after()" class="more">
        <button class="btn bare" @click="at = after()">
          {{ t('reader.more', { n: n(total - after(), 'whole') }) }}
        </button>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.side {
  width: 350px;
  flex: none;
  display: flex;
  flex-direction: column;
  border-right: 1px solid var(--line);
}

.marks {
  padding: 6px 14px;
  border-bottom: 1px solid var(--line);
  gap: 10px;
}

.marks .link {
  color: var(--plum);
  font-weight: 600;
}

.list {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
}

.line {
  display: flex;
  align-items: flex-start;
  border-bottom: 1px solid var(--line-soft);
}

.line input {
  margin: 11px 0 0 12px;
}

.list button:not(.btn) {
  display: block;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  padding: 7px 14px 7px 10px;
  cursor: pointer;
}

.line.here {
  background: var(--gold-soft);
}

.list .title {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}

.list .small {
  display: block;
}

.more {
  padding: 6px 14px;
}

@media (max-width: 700px) {
  .side {
    width: auto;
    max-height: 34%;
    border-right: 0;
    border-bottom: 1px solid var(--line);
  }
}
</style>
