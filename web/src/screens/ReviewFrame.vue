<script setup lang="ts">
import { useEventListener, useStorage, useTitle } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import { CallError } from '@/api/client'
import BenchPanel from '@/parts/BenchPanel.vue'
import CommandPalette from '@/parts/CommandPalette.vue'
import ConflictDialog from '@/parts/ConflictDialog.vue'
import EmptyState from '@/parts/EmptyState.vue'
import SaveDialog from '@/parts/files/SaveDialog.vue'
import RailNav from '@/parts/RailNav.vue'
import SavedState from '@/parts/SavedState.vue'
import SourceChip from '@/parts/SourceChip.vue'
import MadeOfIt from '@/parts/MadeOfIt.vue'
import JudgeDialog from '@/parts/JudgeDialog.vue'
import TalkDialog from '@/parts/TalkDialog.vue'
import RecordReader from '@/parts/RecordReader.vue'
import UndoButton from '@/parts/UndoButton.vue'
import WhoMenu from '@/parts/WhoMenu.vue'
import { useBench } from '@/state/bench'
import { useNews } from '@/state/news'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import { useSteps } from '@/state/steps'
import { useLookAddress } from './lookAddress'

/** The frame of every screen: the rail, the top, and the bench that stays in view. */
const { t } = useI18n()
const route = useRoute()
const review = useReview()
const bench = useBench()
const notes = useNotes()
const problem = useProblem()
const steps = useSteps()
const sources = useSources()

const finding = ref(false)
const folded = useStorage('tamiz-bench-folded', false)
const number = computed(() => Number(route.params.review))

useLookAddress(number)
watch(
  () => route.name,
  () => bench.rest(undefined),
)
watch(
  () => review.refused,
  (error) => error && notes.say({ text: problem(error), wrong: true }),
)
useTitle(
  computed(() =>
    [t(`screen.${String(route.name)}`), review.saved?.name, 'Tamiz'].filter(Boolean).join(' · '),
  ),
)

useNews(number, (news) => {
  if (news.problem) notes.say({ text: problem(new CallError(news.problem)), wrong: true })
  return sources.hear(news) || review.hear(news)
})

useEventListener('keydown', (e: KeyboardEvent) => {
  if (!(e.ctrlKey || e.metaKey) || e.altKey) return
  const typing = (e.target as HTMLElement).matches('input, textarea')
  const key = e.key.toLowerCase()
  // In a field the browser undoes what is typed.
  if (typing || (key !== 'z' && key !== 'y')) return
  e.preventDefault()
  void (key === 'y' || e.shiftKey ? steps.redo() : steps.undo())
})
</script>

<template>
  <div class="frame" :class="{ folded }">
    <RailNav />
    <header class="top">
      <h1 class="display cut">{{ review.saved?.name }}</h1>
      <SourceChip v-if="review.saved" />
      <span class="grow" />
      <button v-if="review.saved" class="find" @click="finding = true">
        <span class="cut">{{ t('palette.open') }}</span> <kbd>Ctrl K</kbd>
      </button>
      <UndoButton />
      <button
        v-if="review.canRedo"
        class="btn bare"
        :title="steps.say(review.canRedo)"
        @click="steps.redo()"
      >
        {{ t('steps.redo') }}
      </button>
      <SavedState />
      <WhoMenu />
    </header>
    <main class="work">
      <EmptyState v-if="review.missing" :title="t('review.goneTitle')" :text="t('review.goneText')">
        <router-link class="btn" :to="{ name: 'reviews' }">{{ t('rail.reviews') }}</router-link>
      </EmptyState>
      <router-view v-else-if="review.saved" />
      <EmptyState
        v-else-if="review.offline"
        :title="t('saved.awayTitle')"
        :text="t('saved.again', { why: problem(review.offline) })"
      />
    </main>
    <BenchPanel v-if="!folded && review.saved" @fold="folded = true" />
    <button
      v-else-if="review.saved"
      class="unfold"
      :aria-label="t('bench.unfold')"
      :title="t('bench.unfold')"
      @click="folded = false"
    >
      ‹
    </button>
    <CommandPalette v-if="review.saved" v-model="finding" />
    <RecordReader />
    <JudgeDialog />
    <TalkDialog />
    <SaveDialog />
    <MadeOfIt />
    <ConflictDialog />
  </div>
</template>

<style scoped>
.find {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  width: 200px;
  min-width: 0;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--white);
  color: var(--ink-3);
  padding: 4px 8px 4px 11px;
  cursor: pointer;
}

.frame {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) 286px;
  grid-template-rows: 50px minmax(0, 1fr);
  height: 100vh;
}

.frame.folded {
  grid-template-columns: 92px minmax(0, 1fr) 26px;
}

.frame > :deep(.rail) {
  grid-row: 1 / 3;
}

.top {
  grid-column: 2 / 4;
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 0 18px;
  border-bottom: 1px solid var(--line);
  background: var(--card);
  min-width: 0;
}

h1 {
  font-size: 17px;
  font-weight: 600;
}

.top .btn:disabled {
  background: none;
  border-color: transparent;
}

.work {
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  display: flex;
  flex-direction: column;
}

.work > :deep(*) {
  padding: 14px 18px 0;
}

.unfold {
  border: 0;
  border-left: 1px solid var(--line);
  background: var(--card);
  color: var(--ink-2);
  cursor: pointer;
  font-size: 16px;
}

@media (max-width: 1100px) {
  .frame {
    grid-template-columns: 72px minmax(0, 1fr) 250px;
  }
}

/* 200 % zoom: the bench goes below, and the page scrolls. */
@media (max-width: 820px) {
  .frame,
  .frame.folded {
    grid-template-columns: 64px minmax(0, 1fr);
    grid-template-rows: 50px minmax(380px, 1fr) auto;
    overflow-y: auto;
  }

  .frame > :deep(.rail) {
    grid-row: 1 / 4;
  }

  .top {
    grid-column: 2;
    gap: 8px;
    padding: 0 10px;
  }

  .top kbd {
    display: none;
  }

  .frame > :deep(.bench),
  .unfold {
    grid-column: 2;
    border-left: 0;
    border-top: 1px solid var(--line);
  }
}
</style>
