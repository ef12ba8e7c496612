<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { api, ask, type Source, type SourceEdit } from '@/api/client'
import { figures } from '@/figures'
import EmptyState from '@/parts/EmptyState.vue'
import OnSwitch from '@/parts/OnSwitch.vue'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import AddSource from './AddSource.vue'
import SourceMapForm from './SourceMapForm.vue'
import SourceSays from './SourceSays.vue'
import TryOut from './TryOut.vue'

/** The literature sources: what each offers and lacks, how it is asked, and a box to try it out. */
const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const notes = useNotes()
const problem = useProblem()
const route = useRoute()
const router = useRouter()

const chosen = computed(
  () =>
    sources.all.find((s) => s.id === Number(route.query.source)) ??
    sources.chosen ??
    sources.all[0],
)
const choose = (id: number) => void router.replace({ query: { source: id } })

const adding = ref(false)
function added(id: number) {
  adding.value = false
  choose(id)
}

async function change(s: Source, edit: SourceEdit) {
  try {
    await ask(
      api.PATCH('/api/sources/{source}', { params: { path: { source: s.id } }, body: edit }),
    )
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
  sources.fresh(figures.sources, figures.counts)
}

async function remove(s: Source) {
  try {
    await ask(api.DELETE('/api/sources/{source}', { params: { path: { source: s.id } } }))
    notes.say({ text: t('sources.removed', { name: s.name }) })
    await review.refresh()
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
  sources.fresh(figures.sources)
}
</script>

<template>
  <div class="screen">
    <div class="row head">
      <h2 class="display">{{ t('sources.title') }}</h2>
      <span class="grow" />
      <button class="btn outline" :aria-expanded="adding" @click="adding = !adding">
        {{ t('sources.add') }}
      </button>
    </div>
    <AddSource v-if="adding || !sources.all.length" @added="added" />
    <EmptyState
      v-if="!sources.all.length"
      :title="t('sources.emptyTitle')"
      :text="t('sources.emptyText')"
    />
    <div v-else-if="chosen" class="two">
      <nav :aria-label="t('sources.list')">
        <button
          v-for="s in sources.all"
          :key="s.id"
          class="one"
          :class="{ here: s.id === chosen.id, off: s.off }"
          :aria-current="s.id === chosen.id"
          @click="choose(s.id)"
        >
          <b>{{ s.name }}</b><span class="small cut">{{
            s.off ? t('chip.off') : s.address.replace(/^https?:\/\//, '')
          }}</span>
        </button>
      </nav>
      <article :key="chosen.id">
        <div class="row">
          <h3 class="display">{{ chosen.name }}</h3>
          <span class="small"
            >{{ t('sources.version', { version: chosen.version }) }} ·
            {{ t('sources.page', { n: n(chosen.map.atMost, 'whole') }) }}</span
          >
          <span class="grow" />
          <OnSwitch
            :model-value="!chosen.off"
            :label="t('sources.switch', { name: chosen.name })"
            @update:model-value="change(chosen, { off: !$event })"
          />
          <button
            class="btn bare"
            :aria-label="t('sources.removeOne', { name: chosen.name })"
            @click="remove(chosen)"
          >
            {{ t('act.remove') }}
          </button>
        </div>
        <p class="mono small">{{ chosen.address }}</p>
        <p class="about">{{ chosen.described.about }}</p>
        <SourceSays :source="chosen" @vocabulary="change(chosen, { vocabulary: $event })" />
        <TryOut :source="chosen" />
        <SourceMapForm :source="chosen" @save="change(chosen, { map: $event })" />
      </article>
    </div>
  </div>
</template>

<style scoped>
.screen {
  height: 100%;
  overflow-y: auto;
  padding-bottom: 60px !important;
}

h2,
h3 {
  font-size: 18px;
  font-weight: 600;
}

.two {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 22px;
  margin-top: 10px;
}

.one {
  display: grid;
  width: 100%;
  text-align: left;
  border: 0;
  border-bottom: 1px solid var(--line-soft);
  background: none;
  padding: 8px 10px;
  cursor: pointer;
}

.one.here {
  background: var(--gold-soft);
}

.one.off b {
  color: var(--ink-2);
  font-weight: 400;
}

.about {
  margin: 8px 0 12px;
  max-width: 70ch;
}

@media (max-width: 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
