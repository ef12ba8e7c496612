<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { LeftWorks } from '@/api/client'
import { useReview } from '@/state/review'

/** How many works that belong are left among those that rounds brought and nobody judged: told by what was read at random. */
defineProps<{ left: LeftWorks }>()
const { t, n } = useI18n()
const review = useReview()
</script>

<template>
  <section class="card" :aria-label="t('found.left')">
    <h2 class="sect">{{ t('found.left') }}</h2>
    <p v-if="!left.open">{{ t('found.leftNone') }}</p>
    <template v-else>
      <div v-if="!left.few" class="big display">
        {{ n(left.total, 'whole') }}
        <span class="small">{{
          t('found.leftInterval', { low: n(left.low, 'whole'), high: n(left.high, 'whole') })
        }}</span>
      </div>
      <p>
        {{
          t(left.few ? 'found.leftFew' : 'found.leftText', {
            open: n(left.open, 'whole'),
            works: n(left.works, 'whole'),
            read: n(left.read, 'whole'),
            belong: n(left.belong, 'whole'),
          })
        }}
      </p>
      <router-link
        class="btn outline"
        :to="{
          name: 'studies',
          params: { review: review.id },
          query: { part: 'find', order: 'random' },
        }"
        >{{ t('found.readAtRandom') }}</router-link
      >
    </template>
  </section>
</template>

<style scoped>
.card {
  padding: 12px 14px;
  min-width: 0;
}

.big {
  font-size: 26px;
  font-weight: 600;
}
</style>
