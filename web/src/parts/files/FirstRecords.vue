<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { FilePreview } from '@/api/client'

/** The first records of a file as they will be, and what would be reported of them. */
defineProps<{ preview?: FilePreview; looking: boolean }>()
const { t, te } = useI18n()
const label = (field: string, own: boolean) =>
  !own && te(`recordField.${field}`) ? t(`recordField.${field}`) : field
</script>

<template>
  <section class="first" :aria-label="t('preview.title')" tabindex="0">
    <h3 class="sect">
      {{ t('preview.title') }} <span v-if="looking" class="small">{{ t('preview.looking') }}</span>
    </h3>
    <p v-if="preview?.problem" class="wrong" role="alert">{{ preview.problem }}</p>
    <article
      v-for="(r, i) in preview?.records.slice(0, 3)"
      :key="i"
      class="card"
      :aria-label="t('preview.record', { n: i + 1 })"
    >
      <dl>
        <template v-for="(f, j) in r.fields" :key="j">
          <dt :class="{ own: f.own }" :title="f.own ? t('preview.own') : undefined">
            {{ label(f.field, f.own) }}
          </dt>
          <dd>
            <span v-for="(v, k) in f.values.slice(0, 8)" :key="k" class="value">{{ v }}</span><span
              v-if="f.values.length > 8"
              class="small"
              >{{ t('preview.more', { n: f.values.length - 8 }) }}</span
            >
          </dd>
        </template>
      </dl>
    </article>
    <ul v-if="preview?.notices.length" class="small notices">
      <li v-for="(x, i) in preview.notices.slice(0, 5)" :key="i">{{ x }}</li>
    </ul>
  </section>
</template>

<style scoped>
.first {
  min-width: 0;
  overflow-y: auto;
}

article {
  margin-top: 8px;
  padding: 8px 11px;
}

dl {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 2px 9px;
}

dt {
  color: var(--ink-2);
  font-size: 12px;
  overflow-wrap: anywhere;
}

dt.own {
  font-style: italic;
}

dd {
  margin: 0;
  overflow-wrap: anywhere;
  display: -webkit-box;
  -webkit-line-clamp: 4;
  -webkit-box-orient: vertical;
  overflow: hidden;
}

.value + .value::before {
  content: ' · ';
  color: var(--gold-deep);
  font-weight: 700;
}

.notices {
  margin-top: 8px;
}
</style>
