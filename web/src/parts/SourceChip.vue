<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** At which source, and over which sample, figures are told; a source is chosen here. */
const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }">
      <button v-bind="menu" class="chip" :title="t('chip.label')">
        <template v-if="sources.chosen"
          ><b class="cut">{{ sources.chosen.name }}</b
          ><em v-if="review.sample" class="cut beside">{{
            t('chip.over', { sample: review.sample.name })
          }}</em></template
        >
        <template v-else-if="review.sample"
          ><b class="cut">{{ review.sample.name }}</b
          ><em>{{
            t('count.records', { n: n(review.sample.records, 'whole') }, review.sample.records)
          }}</em></template
        >
        <b v-else>{{ t('chip.noSample') }}</b>
        <span aria-hidden="true">▾</span>
      </button>
    </template>
    <v-list :aria-label="t('chip.label')">
      <v-list-item
        v-for="s in sources.on"
        :key="s.id"
        :title="t('chip.at', { source: s.name })"
        :active="s.id === sources.chosen?.id"
        @click="sources.choose(s.id)"
      />
      <v-list-item
        :title="t('chip.overSample')"
        :active="!sources.chosen"
        @click="sources.choose(undefined)"
      />
      <v-list-item
        :title="t('chip.manage')"
        :to="{ name: 'sources', params: { review: review.id } }"
      />
    </v-list>
  </v-menu>
</template>

<style scoped>
.chip {
  color: inherit;
  text-decoration: none;
  min-width: 0;
}

.chip b {
  max-width: 220px;
}

.chip em {
  white-space: nowrap;
}

.chip .beside {
  max-width: 190px;
}

@media (max-width: 820px) {
  .chip em {
    display: none;
  }
}
</style>
