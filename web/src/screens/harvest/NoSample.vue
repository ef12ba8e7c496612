<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import EmptyState from '@/parts/EmptyState.vue'
import { useReview } from '@/state/review'

/** Before there is a sample there is nothing to harvest: where one comes from. */
const { t } = useI18n()
const review = useReview()
</script>

<template>
  <EmptyState :title="t('harvest.emptyTitle')" :text="t('harvest.emptyText')">
    <router-link class="btn" :to="{ name: 'samples', params: { review: review.id } }">{{
      t('samples.bring')
    }}</router-link>
  </EmptyState>
</template>
