<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { StudyKnown } from '@/api/client'

/** What is known of a key study: the reference as it was brought in, and its record at each source; which of them figures go by. */
const props = defineProps<{ known: StudyKnown }>()
const { t, d } = useI18n()

const by = computed(() => props.known.sources.find((s) => s.source === props.known.by))
const lines = computed(() =>
  props.known.sources.map((s) => ({
    ...s,
    says: [
      t(`holding.${s.state}`),
      s.state === 'held' && s.how === 'identifier' && t('holding.byIdentifier'),
      s.state === 'held' && s.how === 'title' && t('holding.byTitle'),
      s.how === 'settled' && t('holding.settled'),
      s.record && t('known.headings', { n: s.record.headings.length }, s.record.headings.length),
      s.record && !s.record.abstract && t('record.noAbstract'),
      t('known.on', { day: d(s.at, 'day') }),
    ]
      .filter(Boolean)
      .join(', '),
  })),
)
</script>

<template>
  <details class="known small">
    <summary>
      {{ by ? t('known.by', { source: by.name }) : t('known.byAll') }}
    </summary>
    <ul>
      <li>
        <b>{{ t('known.brought') }}</b>
        {{ known.brought.headings.length ? t('known.broughtSome') : t('known.broughtNone') }}
      </li>
      <li v-for="s in lines" :key="s.source">
        <b>{{ s.name }}</b> {{ s.says }}
        <ul v-if="s.changes.length">
          <li v-for="c in s.changes" :key="c.field">
            {{ t('known.change', { day: d(s.changed ?? s.at, 'day'), field: c.field }) }}
            <s v-if="c.a">{{ c.a }}</s> {{ c.b }}
          </li>
        </ul>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.known {
  margin-top: 6px;
}

.known ul {
  margin: 4px 0 0 14px;
  display: grid;
  gap: 3px;
  overflow-wrap: anywhere;
}
</style>
