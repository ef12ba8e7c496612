<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { ShelfEntry } from '@/api/client'
import DraftField from '@/parts/DraftField.vue'
import { useReader } from '@/parts/reader'
import { useShelf } from '@/state/shelf'

/** A record that is kept, with its note and tags. */
defineProps<{ entry: ShelfEntry; chosen: boolean }>()
const emit = defineEmits<{ choose: [on: boolean]; note: [text: string]; tag: [text: string] }>()

const { t, d } = useI18n()
const reader = useReader()
const shelf = useShelf()
</script>

<template>
  <li :class="{ sel: chosen }">
    <input
      type="checkbox"
      :checked="chosen"
      :aria-label="t('shelf.choose', { title: entry.title })"
      @change="emit('choose', ($event.target as HTMLInputElement).checked)"
    />
    <div class="what">
      <button
        class="link cut"
        :title="entry.title"
        @click="reader.list({ kind: 'shelf' }, t('screen.shelf'), entry.id)"
      >
        {{ entry.title || t('record.noTitle') }}
      </button>
      <p class="small cut">
        {{ [entry.byline, entry.journal, entry.year || undefined].filter(Boolean).join(' · ')
        }}<template v-if="entry.key"> · {{ t('record.key') }}</template>
      </p>
    </div>
    <div class="noted">
      <DraftField
        class="field"
        :value="entry.note"
        :maxlength="4000"
        :placeholder="t('shelf.notePlace')"
        :aria-label="t('shelf.note', { title: entry.title })"
        @typed="emit('note', $event)"
      />
      <DraftField
        class="field tagged"
        :value="entry.tags.join(', ')"
        :maxlength="1300"
        :placeholder="t('shelf.tagPlace')"
        :aria-label="t('shelf.tagsOf', { title: entry.title })"
        @typed="emit('tag', $event)"
      />
    </div>
    <span class="small when">{{ d(entry.made, 'short') }}</span>
    <button
      class="btn bare"
      :aria-label="t('shelf.takeOne', { title: entry.title })"
      @click="shelf.toggle(entry.id, entry.title)"
    >
      ×
    </button>
  </li>
</template>

<style scoped>
li {
  height: 62px;
  display: grid;
  grid-template-columns: auto minmax(0, 1.25fr) minmax(0, 1fr) 52px 28px;
  gap: 10px;
  align-items: center;
  padding: 0 8px;
  border-bottom: 1px solid var(--line-soft);
}

li.sel {
  background: var(--gold-soft);
}

.what .link {
  display: block;
  max-width: 100%;
  font-weight: 600;
  text-align: left;
}

.noted {
  display: grid;
  gap: 3px;
}

.noted .field {
  padding: 2px 7px;
  border-color: transparent;
  background: transparent;
  text-overflow: ellipsis;
}

.noted .field:hover,
.noted .field:focus {
  border-color: var(--line);
  background: var(--white);
}

.tagged {
  color: var(--plum);
  font-size: 12px;
}

.when {
  text-align: right;
  white-space: nowrap;
}
</style>
