<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { RouteLocationRaw } from 'vue-router'
import type { WrittenRecord } from '@/api/client'
import { useReview } from '@/state/review'

/** What a report of a search is to say: each item with what fills it, or with the way to where it is filled. */
const props = defineProps<{ items: WrittenRecord['items'] }>()
const emit = defineEmits<{ lead: [section: string] }>()
const { t } = useI18n()
const review = useReview()

const filled = computed(() => props.items.filter((i) => i.filled).length)
function way(fill: string): RouteLocationRaw {
  const params = { review: review.id }
  switch (fill) {
    case 'everywhere':
    case 'paste':
      return { name: 'strategy', params, query: { part: fill } }
    case 'runs':
    case 'check':
      return { name: 'logbook', params, query: { part: fill } }
    case 'versions':
      return { name: 'logbook', params }
    default:
      return { name: fill, params }
  }
}
</script>

<template>
  <aside :aria-label="t('written.items')">
    <h2 class="sect">{{ t('written.items') }}</h2>
    <p class="small">{{ t('written.filled', { n: filled, of: items.length }) }}</p>
    <ol>
      <li v-for="i in items" :key="i.id" :class="{ filled: i.filled }">
        <span class="box" aria-hidden="true" />
        <div>
          <p>{{ i.asks }}</p>
          <button v-if="i.filled" class="link small" @click="emit('lead', i.by)">
            {{ i.says }}
          </button>
          <p v-else class="small">
            {{ t('written.missing') }}
            <router-link :to="way(i.fill)">{{ t(`written.way.${i.fill}`) }}</router-link>
          </p>
        </div>
      </li>
    </ol>
  </aside>
</template>

<style scoped>
aside {
  position: sticky;
  top: 0;
  max-height: calc(100vh - 80px);
  overflow: auto;
}

li {
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr);
  gap: 8px;
  padding: 7px 0;
  border-bottom: 1px solid var(--line-soft);
  font-size: 12.5px;
}

.box {
  width: 10px;
  height: 10px;
  margin-top: 4px;
  border: 1.5px solid var(--miss);
  border-radius: 2px;
}

.filled .box {
  border-color: var(--ink);
  background: var(--ink);
}

.link {
  text-align: left;
  overflow-wrap: anywhere;
}

a {
  color: var(--plum);
}
</style>
