<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { api, ask, type Source, type SourceEdit } from '@/api/client'
import EmptyState from '@/parts/EmptyState.vue'
import OnSwitch from '@/parts/OnSwitch.vue'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import SourceMapForm from './SourceMapForm.vue'
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
const address = ref('')
const asking = ref(false)
const failed = ref('')
watch(address, () => (failed.value = ''))

async function add() {
  asking.value = true
  try {
    const s = await ask(api.POST('/api/sources', { body: { address: address.value.trim() } }))
    sources.fresh('sources')
    address.value = ''
    adding.value = false
    choose(s.id)
  } catch (error) {
    failed.value = problem(error)
  } finally {
    asking.value = false
  }
}

async function change(s: Source, edit: SourceEdit) {
  try {
    await ask(
      api.PATCH('/api/sources/{source}', { params: { path: { source: s.id } }, body: edit }),
    )
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
  sources.fresh('sources', 'counts')
}

async function remove(s: Source) {
  try {
    await ask(api.DELETE('/api/sources/{source}', { params: { path: { source: s.id } } }))
    notes.say({ text: t('sources.removed', { name: s.name }) })
    await review.refresh()
  } catch (error) {
    notes.say({ text: problem(error), wrong: true })
  }
  sources.fresh('sources')
}

const features = [
  'near',
  'ends',
  'inside',
  'narrower',
  'central',
  'qualify',
  'sort',
  'scan',
] as const
/** What a source may say of citations. */
const links = ['cites', 'citedBy', 'timesCited']
const offers = computed(() => {
  const s = chosen.value
  if (!s) return []
  return [
    ...Object.keys(s.map.indexes)
      .map((f) => t(`sources.fieldName.${f}`))
      .sort(),
    ...features.filter((f) => s.map[f]).map((f) => t(`sources.can_.${f}`)),
  ]
})
const lacks = computed(() => {
  const s = chosen.value
  return s
    ? [
        ...[...s.lacks, ...links.filter((f) => !s.map.indexes[f])].map((f) =>
          t(`sources.fieldName.${f}`),
        ),
        ...features.filter((f) => !s.map[f]).map((f) => t(`sources.cannot.${f}`)),
      ]
    : []
})
/** The vocabularies that a source can be tied to: those that the program has, and the one that it is tied to. */
const vocabularies = useQuery({
  queryKey: ['vocabularies'],
  queryFn: () => ask(api.GET('/api/vocabularies')),
})
const vocabularyNames = computed(() =>
  [
    ...new Set([
      ...(vocabularies.data.value ?? []).map((v) => v.name),
      ...(chosen.value?.vocabulary ? [chosen.value.vocabulary] : []),
    ]),
  ].sort(),
)
const here = computed(
  () => !!chosen.value?.vocabulary && review.vocabulary?.name === chosen.value.vocabulary,
)
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
    <form v-if="adding || !sources.all.length" class="card adding" @submit.prevent="add">
      <p class="small">{{ t('sources.addText') }}</p>
      <div class="row">
        <input
          v-model="address"
          class="field mono grow"
          type="url"
          :aria-label="t('sources.address')"
          placeholder="https://…"
          maxlength="500"
          required
          :aria-invalid="!!failed"
          aria-describedby="add-source-said"
        />
        <button class="btn" :disabled="asking || !address.trim()">
          {{ asking ? t('sources.asking') : t('sources.addIt') }}
        </button>
      </div>
      <p id="add-source-said" class="wrong" aria-live="polite">{{ failed }}</p>
    </form>
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
        <dl class="says">
          <dt class="sect">{{ t('sources.offers') }}</dt>
          <dd>{{ offers.join(' · ') }}</dd>
          <dt class="sect">{{ t('sources.lacks') }}</dt>
          <dd class="lack">{{ lacks.length ? lacks.join(' · ') : '–' }}</dd>
          <dt class="sect">{{ t('sources.vocabulary') }}</dt>
          <dd>
            <select
              class="field vocabulary"
              :aria-label="t('sources.vocabularyOf', { source: chosen.name })"
              :value="chosen.vocabulary"
              @change="change(chosen, { vocabulary: ($event.target as HTMLSelectElement).value })"
            >
              <option value="">{{ t('sources.noVocabulary') }}</option>
              <option v-for="v in vocabularyNames" :key="v" :value="v">{{ v }}</option>
            </select>
            <span v-if="chosen.vocabulary" class="small">{{
              t(here ? 'sources.inReview' : 'sources.notInReview')
            }}</span>
          </dd>
        </dl>
        <TryOut :source="chosen" />
        <SourceMapForm :source="chosen" @save="change(chosen, { map: $event })" />
      </article>
    </div>
  </div>
</template>

<style scoped>
.vocabulary {
  width: auto;
  max-width: 260px;
  margin-right: 8px;
}

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

.adding {
  padding: 12px 14px;
  margin: 8px 0;
}

.adding .row {
  margin-top: 8px;
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

.says {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 6px 12px;
  align-items: baseline;
  margin-bottom: 14px;
}

dd {
  margin: 0;
}

.lack {
  color: var(--ink-2);
}

@media (max-width: 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
