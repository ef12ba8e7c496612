<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import BlockStamp from '@/parts/BlockStamp.vue'
import EmptyState from '@/parts/EmptyState.vue'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useShelf } from '@/state/shelf'
import CoverageHead from './CoverageHead.vue'
import HeldBack from './HeldBack.vue'
import MissedDialog from './MissedDialog.vue'
import PlanPanel from './PlanPanel.vue'
import StudyCells from './StudyCells.vue'
import StudyPanel from './StudyPanel.vue'
import { useStudies } from './studies'

const { t } = useI18n()
const review = useReview()
const route = useRoute()
const problem = useProblem()
const shelf = useShelf()

const missedFirst = ref(true)
const { coverage, rows, missed } = useStudies(missedFirst)
const planned = ref(false)
const estimating = ref(false)
const searched = computed(() => review.document.blocks.map((b, i) => ({ ...b, i })))
const recall = computed(() => coverage.data.value?.recall)

const chosen = ref<number>()
watch(
  () => route.query.study,
  (id) => id && (chosen.value = Number(id)),
  { immediate: true },
)
watch(
  rows,
  (list) => {
    // Before the studies are there, whichever the address names stays.
    if (list.length && !list.some((s) => s.id === chosen.value)) chosen.value = list[0]!.id
  },
  { immediate: true },
)

function onKey(e: KeyboardEvent) {
  if (e.key.toLowerCase() === 'k' && !e.ctrlKey && !e.metaKey && !e.altKey) {
    const study = rows.value.find((s) => s.id === chosen.value)
    if (study) shelf.toggle(study.record, study.title)
  }
  const by = { ArrowDown: 1, ArrowUp: -1 }[e.key]
  if (!by) return
  e.preventDefault()
  const i = rows.value.findIndex((s) => s.id === chosen.value)
  const next = rows.value[Math.min(Math.max(i + by, 0), rows.value.length - 1)]
  chosen.value = next?.id
  document.getElementById(`study-${next?.id}`)?.scrollIntoView({ block: 'nearest' })
}
// Without a block there is no column for one: repeat(0, …) would be no list of columns at all.
const grid = computed(() => ({
  gridTemplateColumns: ['minmax(0, 1fr)', ...searched.value.map(() => '46px'), '54px', '42px'].join(
    ' ',
  ),
}))
</script>

<template>
  <div class="screen">
    <EmptyState
      v-if="!review.keyStudies.length"
      :title="t('coverage.emptyTitle')"
      :text="t('coverage.emptyText')"
    >
      <router-link class="btn" :to="{ name: 'question', params: { review: review.id } }">{{
        t('keys.bring')
      }}</router-link>
    </EmptyState>
    <p v-else-if="coverage.error.value && !coverage.data.value" class="wrong" role="alert">
      {{ problem(coverage.error.value) }}
    </p>
    <template v-else-if="recall">
      <CoverageHead
        v-model:missed-first="missedFirst"
        v-model:planned="planned"
        :coverage="coverage.data.value!"
        :recall="recall"
        :missed="missed.map((s) => s.record)"
        @estimate="estimating = true"
      />
      <p v-if="!searched.some((b) => b.searched && !b.negated)" class="none" role="status">
        {{ t(searched.length ? 'coverage.noneSearched' : 'coverage.noBlocks') }}
        <router-link
          class="btn outline"
          :to="{ name: 'question', params: { review: review.id } }"
          >{{ t('question.concepts') }}</router-link
        >
      </p>
      <MissedDialog v-model="estimating" />
      <div class="two">
        <div class="left">
          <div class="g h" :style="grid">
            <span>{{ t('keys.study') }}</span>
            <span v-for="b in searched" :key="b.id" class="c" :title="b.concept"
              ><BlockStamp :block="b.id"
            /></span>
            <span class="c">{{ t('coverage.limits') }}</span><span class="c">{{
              t('coverage.all')
            }}</span>
          </div>
          <div
            class="studies"
            role="listbox"
            tabindex="0"
            :aria-label="t('coverage.studies')"
            :aria-activedescendant="chosen ? `study-${chosen}` : undefined"
            @keydown="onKey"
          >
            <div
              v-for="s in rows"
              :id="`study-${s.id}`"
              :key="s.id"
              class="g"
              :class="{ sel: s.id === chosen, away: s.notHere }"
              :style="grid"
              role="option"
              :aria-selected="s.id === chosen"
              @click="((chosen = s.id), (planned = false))"
            >
              <StudyCells :study="s" :blocks="searched" />
            </div>
          </div>
          <HeldBack v-if="coverage.data.value" :held="coverage.data.value.heldBack" />
        </div>
        <PlanPanel v-if="planned" @study="((chosen = $event), (planned = false))" />
        <StudyPanel
          v-else-if="chosen"
          :half="rows.find((s) => s.id === chosen)?.half"
          :study="chosen"
          :held-back-by="rows.find((s) => s.id === chosen)?.heldBackBy ?? []"
          :caught="rows.find((s) => s.id === chosen)?.caught ?? false"
          :away="rows.find((s) => s.id === chosen)?.notHere"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.screen {
  height: 100%;
  display: flex;
  flex-direction: column;
}

.none {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  margin-top: 10px;
  padding: 8px 12px;
  border: 1px dashed var(--sand);
  border-radius: var(--radius);
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 16px;
  margin-top: 12px;
  flex: 1;
  min-height: 0;
}

.left {
  display: flex;
  flex-direction: column;
  min-height: 0;
}

.studies {
  overflow-y: auto;
  flex: 1;
  min-height: 80px;
  outline-offset: -2px;
}

.g {
  display: grid;
  align-items: center;
  border-bottom: 1px solid var(--line-soft);
  cursor: default;
}

.g > :deep(*) {
  padding: 3px 6px;
}

.g.h {
  font: 600 11.5px var(--ui);
  color: var(--ink-2);
  border-bottom-color: var(--line);
}

.g.sel {
  background: var(--gold-soft);
}

.c {
  display: grid;
  place-items: center;
}

.wrong {
  color: var(--miss);
}

@media (max-width: 820px) {
  .screen {
    overflow-y: auto;
  }

  .two {
    grid-template-columns: minmax(0, 1fr);
    flex: none;
  }

  .studies {
    max-height: 320px;
  }
}
</style>
