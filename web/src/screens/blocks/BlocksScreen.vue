<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import BlockStamp from '@/parts/BlockStamp.vue'
import EmptyState from '@/parts/EmptyState.vue'
import TakeSeeds from '@/parts/TakeSeeds.vue'
import { useBench } from '@/state/bench'
import { useKept } from '@/state/kept'
import { useReview } from '@/state/review'
import AddTerm from './AddTerm.vue'
import AlikeCard from './AlikeCard.vue'
import BlockHead from './BlockHead.vue'
import BlindSpot from './BlindSpot.vue'
import HeadingsAndWords from './HeadingsAndWords.vue'
import KeepBlock from './KeepBlock.vue'
import PrunePanel from './PrunePanel.vue'
import TakeKept from './TakeKept.vue'
import TermTable from './TermTable.vue'

const { t } = useI18n()
const review = useReview()
const bench = useBench()
const route = useRoute()
const router = useRouter()

const chosen = ref<string>()
watch(
  () => route.query.block,
  (b) => (chosen.value = b ? String(b) : chosen.value),
  { immediate: true },
)
const block = computed(
  () => review.document.blocks.find((b) => b.id === chosen.value) ?? review.document.blocks[0],
)
const figures = computed(() => bench.now?.blocks.find((b) => b.id === block.value?.id))
const pruning = ref(false)
const kept = useKept()
const keeping = ref(false)
const taking = ref(false)
function taken(id: string) {
  taking.value = false
  choose(id)
}
const later = computed(() => (block.value ? kept.later(block.value) : undefined))
const on = computed(() => block.value?.terms.filter((x) => x.on).length ?? 0)

function choose(id: string) {
  chosen.value = id
  pruning.value = false
  keeping.value = false
  void router.replace({ query: { block: id } })
}
</script>

<template>
  <div class="screen">
    <TakeKept v-if="taking" @taken="taken" @close="taking = false" />
    <EmptyState v-if="!block" :title="t('blocks.emptyTitle')" :text="t('blocks.emptyText')">
      <router-link class="btn" :to="{ name: 'question', params: { review: review.id } }">{{
        t('question.addConcept')
      }}</router-link>
      <button v-if="kept.newest.value.length && !taking" class="btn outline" @click="taking = true">
        {{ t('kept.open') }}
      </button>
    </EmptyState>
    <template v-else>
      <div class="tabs" role="tablist" :aria-label="t('blocks.all')">
        <button
          v-for="b in review.document.blocks"
          :key="b.id"
          role="tab"
          :aria-selected="b.id === block.id"
          :class="{ here: b.id === block.id }"
          @click="choose(b.id)"
        >
          <BlockStamp :block="b.id" /> {{ b.concept || t('block.unnamed') }}
        </button>
      </div>
      <p v-if="block.origin" class="small origin">
        {{ t('kept.origin', block.origin) }}
        <button v-if="later" class="link" @click="kept.renew(block, later)">
          {{ t('kept.renew', { version: later.version }) }}
        </button>
      </p>
      <BlockHead :block="block" :figures="figures" />
      <HeadingsAndWords
        v-if="figures?.records"
        :headings="figures.headingsAlone ?? 0"
        :both="figures.both ?? 0"
        :words="figures.wordsAlone ?? 0"
        :unindexed="figures.unindexed"
      />
      <TermTable :key="block.id" :block="block" :figures="figures" />
      <div class="row under">
        <button
          v-if="on > 1 && figures?.records !== undefined && !pruning"
          class="btn bare"
          @click="pruning = true"
        >
          {{ t('prune.open') }}
        </button>
        <button v-if="block.terms.length && !keeping" class="btn bare" @click="keeping = true">
          {{ t('kept.keep') }}
        </button>
        <button v-if="kept.newest.value.length && !taking" class="btn bare" @click="taking = true">
          {{ t('kept.open') }}
        </button>
      </div>
      <KeepBlock v-if="keeping" :key="block.id" :block="block" @close="keeping = false" />
      <PrunePanel v-if="pruning" :block="block" @close="pruning = false" />
      <p v-if="!block.terms.length" class="small none">
        {{ t('blocks.noTerms') }} <TakeSeeds :block="block" />
      </p>
      <AddTerm :key="block.id" :block="block" />
      <BlindSpot :block="block" />
      <AlikeCard :block="block" />
    </template>
  </div>
</template>

<style scoped>
.screen {
  container: block / inline-size;
  height: 100%;
  overflow-y: auto;
  padding-bottom: 90px !important;
}

.origin {
  margin-top: 6px;
}

.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  border-bottom: 1px solid var(--line);
}

.tabs button {
  display: flex;
  align-items: center;
  gap: 6px;
  border: 0;
  background: none;
  padding: 4px 0 8px;
  color: var(--ink-2);
  cursor: pointer;
}

.tabs button.here {
  color: var(--ink);
  font-weight: 650;
  box-shadow: 0 2px 0 var(--plum);
}

.under {
  justify-content: flex-end;
}

.none {
  padding: 12px 8px;
}
</style>
