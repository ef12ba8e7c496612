<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import type { AlikeQuestion, Block } from '@/api/client'
import AlikeWords from '@/parts/AlikeWords.vue'
import { termText, useReview } from '@/state/review'

/** Words used like the terms of a block, or like one of them: each is gone to in Harvest. */
const props = defineProps<{ block: Block }>()
const { t } = useI18n()
const review = useReview()
const router = useRouter()

const open = ref(false)
const term = ref('') // its id; empty for all of the block
watch(
  () => props.block.id,
  () => (term.value = ''),
)
const texts = computed(() => props.block.terms.filter((x) => x.kind !== 'heading'))
const chosen = computed(() => texts.value.find((x) => x.id === term.value))
const like = computed<AlikeQuestion>(() =>
  chosen.value ? { term: chosen.value } : { block: props.block.id },
)
const find = (item: string) =>
  router.push({ name: 'harvest', params: { review: review.id }, query: { facet: 'words', item } })
</script>

<template>
  <section v-if="review.sample && texts.length" class="card">
    <div class="row">
      <button class="btn bare" :aria-expanded="open" @click="open = !open">
        {{ t('alike.button') }}
      </button>
      <select v-if="open" v-model="term" class="chip" :aria-label="t('alike.likeWhat')">
        <option value="">{{ t('alike.of', { block: block.name }) }}</option>
        <option v-for="x in texts" :key="x.id" :value="x.id">{{ termText(x) }}</option>
      </select>
    </div>
    <AlikeWords
      v-if="open"
      class="words"
      :like="like"
      :title="
        chosen ? t('alike.text', { item: termText(chosen) }) : t('alike.of', { block: block.name })
      "
      @find="find"
    />
  </section>
</template>

<style scoped>
.card {
  margin-top: 12px;
  padding: 8px 13px;
}

.words {
  max-width: 480px;
}
</style>
