<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { useReview } from '@/state/review'

/** All that the search is shown by, in one file: which formats its records come in is chosen first. */
const { t } = useI18n()
const review = useReview()
const formats = ['ris', 'bibtex', 'csl', 'csv', 'tsv', 'mods', 'html'] as const
const chosen = ref<string[]>(['ris', 'csv'])
const address = computed(() => {
  const query = new URLSearchParams()
  if (review.look.name) query.set('look', review.look.name)
  for (const f of chosen.value) query.append('formats', f)
  return `/api/reviews/${review.id}/bundle/export?${query.toString()}`
})
</script>

<template>
  <v-menu :close-on-content-click="false">
    <template #activator="{ props: menu }">
      <button class="btn outline" v-bind="menu">{{ t('written.bundle') }}</button>
    </template>
    <div class="card">
      <p class="small">{{ t('written.bundleText') }}</p>
      <fieldset>
        <legend class="small">{{ t('written.formats') }}</legend>
        <label v-for="f in formats" :key="f" class="row"
          ><input v-model="chosen" type="checkbox" :value="f" />{{
            t(`written.format.${f}`)
          }}</label
        >
      </fieldset>
      <a class="btn" :href="address" download>{{ t('written.pack') }}</a>
    </div>
  </v-menu>
</template>

<style scoped>
.card {
  padding: 14px;
  width: 300px;
  background: var(--card);
}

fieldset {
  border: 0;
  margin: 8px 0;
  padding: 0;
}

label {
  padding: 2px 0;
}
</style>
