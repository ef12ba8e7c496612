<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type KeyStudy } from '@/api/client'
import EmptyState from '@/parts/EmptyState.vue'
import FileDrop from '@/parts/FileDrop.vue'
import ImportProgress from '@/parts/ImportProgress.vue'
import { useReader } from '@/parts/reader'
import { useBench } from '@/state/bench'
import { useImports } from '@/state/imports'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import { useSteps } from '@/state/steps'
import { useTalk } from '@/state/talk'
import HoldingMark from './HoldingMark.vue'
import LookUpDialog from './LookUpDialog.vue'

/** The papers known to belong: brought in from a file, each openable, caught or missed by what stands now. */
const { t, n } = useI18n()
const review = useReview()
const imports = useImports()
const reader = useReader()
const notes = useNotes()
const problem = useProblem()
const steps = useSteps()
const talk = useTalk()
const bench = useBench()
const sources = useSources()
const pasting = ref(false)
const lookingUp = ref(false)

const caught = computed(() => bench.now?.caught ?? [])
const searching = computed(() =>
  review.document.blocks.some((b) => b.searched && b.terms.some((x) => x.on)),
)

const holding = (study: number, source: number) =>
  sources.holdings.find((h) => h.keyStudy === study && h.source === source)
async function lookUp() {
  lookingUp.value = true
  await ask(
    api.POST('/api/reviews/{review}/holdings', { params: { path: { review: review.id } } }),
  ).catch((error) => notes.say({ text: problem(error), wrong: true }))
  lookingUp.value = false
}

/** Records at sources that are otherwise than when they were first fetched. */
const changed = computed(() => sources.holdings.filter((h) => h.changed).length)

function remove(k: KeyStudy) {
  review.change(
    { key: 'removeStudy', params: { title: k.title } },
    { keyStudies: [{ id: k.id, deleted: true }] },
  )
  notes.say({
    text: t('note.removedStudy', { title: k.title }),
    action: { label: t('steps.undo'), run: steps.undo },
  })
}
</script>

<template>
  <FileDrop :hint="t('keys.drop')" @files="imports.bring($event, 'keys')">
    <template #default="{ choose }">
      <div class="row head">
        <h2 class="sect">{{ t('keys.title') }}</h2>
        <span v-if="review.keyStudies.length" class="small">{{
          t('keys.count', { n: n(review.keyStudies.length, 'whole') }, review.keyStudies.length)
        }}</span>
        <span class="grow" />
        <router-link
          v-if="review.keyStudies.length && sources.on.length"
          class="btn bare"
          :to="{ name: 'studies', params: { review: review.id } }"
          >{{ t('keys.findMore') }}</router-link
        >
        <button
          v-if="review.keyStudies.length && sources.on.length"
          class="btn bare"
          :disabled="lookingUp || !!sources.lookedUp"
          :title="t('known.lookUpTip')"
          @click="lookUp"
        >
          {{ t('holding.lookUp') }}
        </button>
        <span v-if="sources.lookedUp" class="small" role="status">{{
          t('known.lookingUp', { ...sources.lookedUp })
        }}</span>
        <span v-else-if="changed" class="small" role="status">{{
          t('known.changed', { n: changed }, changed)
        }}</span>
        <button v-if="sources.on.length" class="btn outline" @click="pasting = true">
          {{ t('holding.paste') }}
        </button>
        <button class="btn outline" @click="choose">{{ t('keys.bring') }}</button>
      </div>
      <ImportProgress kind="keys" />
      <table v-if="review.keyStudies.length" class="figures">
        <thead>
          <tr>
            <th class="left">{{ t('keys.study') }}</th>
            <th>{{ t('keys.year') }}</th>
            <th>{{ t('keys.headings') }}</th>
            <th v-for="s in sources.on" :key="s.id">{{ s.name }}</th>
            <th v-if="searching">{{ t('keys.caught') }}</th>
            <th>
              <span class="visually-hidden">{{ t('act.remove') }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(k, i) in review.keyStudies" :key="k.id">
            <td class="left">
              <button class="title" @click="reader.one(k.record, t('keys.one'))">
                {{ k.title || t('record.noTitle') }}
              </button>
              <div class="small">{{ k.byline }}</div>
            </td>
            <td>{{ k.year || '–' }}</td>
            <td class="small">{{ t(k.indexed ? 'known.some' : 'known.none') }}</td>
            <td v-for="s in sources.on" :key="s.id">
              <HoldingMark :study="k" :source="s" :holding="holding(k.id, s.id)" />
            </td>
            <td v-if="searching && bench.now?.notHere?.[i]" class="small">
              {{ t('holding.notHere', { source: sources.chosen?.name ?? '' }) }}
            </td>
            <td v-else-if="searching">
              <i
                class="mark"
                :class="{ missed: !caught[i] }"
                role="img"
                :aria-label="t(caught[i] ? 'strip.caught' : 'strip.missed')"
                :title="t(caught[i] ? 'strip.caught' : 'strip.missed')"
              />
            </td>
            <td class="acts">
              <button
                class="link"
                :aria-label="t('talk.raiseOn', { name: k.title })"
                :title="t('talk.raise')"
                @click="talk.on = { kind: 'study', about: String(k.id), name: k.title }"
              >
                ?
              </button>
              <button
                class="btn bare"
                :aria-label="t('keys.removeOne', { title: k.title })"
                @click="remove(k)"
              >
                {{ t('act.remove') }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <EmptyState v-else :title="t('keys.emptyTitle')" :text="t('keys.emptyText')"
        ><button class="btn" @click="choose">{{ t('keys.bring') }}</button></EmptyState
      >
      <LookUpDialog v-if="pasting" @close="pasting = false" />
    </template>
  </FileDrop>
</template>

<style scoped>
.acts {
  white-space: nowrap;
}

.head {
  margin-top: 20px;
  min-height: 34px;
}

.title {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  cursor: pointer;
}

.title:hover {
  text-decoration: underline;
}

.mark {
  display: inline-block;
  width: 13px;
  height: 13px;
  border-radius: 3px;
  background: var(--ink);
  vertical-align: -2px;
}

.mark.missed {
  background: none;
  border: 1.5px solid var(--miss);
}
</style>
