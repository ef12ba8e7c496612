<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { useStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import EmptyState from '@/parts/EmptyState.vue'
import SourceNotes from '@/parts/SourceNotes.vue'
import { saveBlob } from '@/parts/files/blob'
import { useInstead } from '@/parts/instead'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import LineRow from './LineRow.vue'
import MakesShort from './MakesShort.vue'
import { useLines } from './lines'

/** What leaves the house: numbered lines as they are meant, and beside each how a source is asked it. */
const { t, n, d } = useI18n()
const review = useReview()
const sources = useSources()
const notes = useNotes()
const problem = useProblem()
const instead = useInstead()

/** Whose names it is written in: a source's, or those of CQL as Tamiz writes it. */
const wanted = useStorage<number>('tamiz-typed-for', 0)
const source = computed(() => sources.all.find((s) => s.id === wanted.value))
const asked = useQuery({
  queryKey: computed(() => [
    'lines',
    review.id,
    review.revision,
    source.value?.id,
    source.value?.map,
    review.vocabulary?.id,
  ]),
  queryFn: () =>
    ask(
      api.GET('/api/reviews/{review}/lines', {
        params: { path: { review: review.id }, query: { source: source.value?.id } },
      }),
    ),
  placeholderData: keepPreviousData,
})
const written = computed(() => asked.data.value)
const lines = useLines(computed(() => written.value?.lines ?? []))

const folded = ref(new Set<string>())
function fold(block: string) {
  const next = new Set(folded.value)
  if (!next.delete(block)) next.add(block)
  folded.value = next
}
const shown = computed(() =>
  lines.value.filter((l) => l.kind !== 'term' || !folded.value.has(l.block ?? '')),
)
const under = (block?: string) =>
  lines.value.filter((l) => l.kind === 'term' && l.block === block).length

const all = () => (written.value?.lines ?? []).map((l) => `${l.number}\t${l.text}`).join('\n')
async function copy(text: string, what: string) {
  try {
    await navigator.clipboard.writeText(text)
    notes.say({ text: t('strategy.copied', { what }) })
  } catch {
    notes.say({ text: t('strategy.notCopied'), wrong: true })
  }
}
function save() {
  const w = written.value
  if (!w) return
  const now = new Date()
  const said = [...new Set([...w.notes, ...w.lines.flatMap((l) => l.notes)].map(instead))]
  const text = [
    review.saved?.name ?? '',
    `${w.source ?? t('strategy.cql')}. ${t('strategy.written', { day: d(now, 'day'), time: d(now, 'time') })}`,
    '',
    all(),
    '',
    t('strategy.whole'),
    w.whole,
    ...(said.length ? ['', ...said.map((x) => `* ${x}`)] : []),
    '',
  ].join('\n')
  saveBlob(
    new Blob([text], { type: 'text/plain' }),
    `${review.saved?.name ?? ''}, ${w.source ?? 'CQL'}.txt`,
  )
}
</script>

<template>
  <div class="screen">
    <p v-if="asked.error.value && !written" class="wrong" role="alert">
      {{ problem(asked.error.value) }}
    </p>
    <EmptyState
      v-else-if="written && !lines.length"
      :title="t('strategy.emptyTitle')"
      :text="t('strategy.emptyText')"
    >
      <router-link class="btn" :to="{ name: 'blocks', params: { review: review.id } }">{{
        t('strategy.toBlocks')
      }}</router-link>
    </EmptyState>
    <template v-else-if="written">
      <div class="row top">
        <label class="row small"
          >{{ t('strategy.typedFor')
          }}<select v-model="wanted" class="field typed">
            <option :value="0">{{ t('strategy.cql') }}</option>
            <option v-for="s in sources.all" :key="s.id" :value="s.id">{{ s.name }}</option>
          </select></label
        >
        <span class="grow" />
        <button class="btn outline" @click="save">{{ t('strategy.save') }}</button>
        <button
          class="btn outline"
          :disabled="!written.whole"
          @click="copy(written.whole, t('strategy.copiedWhole'))"
        >
          {{ t('strategy.copyWhole') }}
        </button>
        <button
          class="btn"
          @click="copy(all(), t('strategy.copiedAll', { n: lines.length }, lines.length))"
        >
          {{ t('strategy.copyAll') }}
        </button>
      </div>
      <table class="figures lines" :aria-label="t('strategy.lines')">
        <thead>
          <tr>
            <th>
              <span class="visually-hidden">{{ t('strategy.number') }}</span>
            </th>
            <th class="left">{{ t('strategy.meant') }}</th>
            <th v-if="sources.chosen">{{ sources.chosen.name }}</th>
            <th v-if="review.sample">{{ t('strategy.sample') }}</th>
            <th v-if="review.keyStudies.length">{{ t('strategy.keys') }}</th>
            <th class="left typed">
              {{
                written.source
                  ? t('strategy.typed', { source: written.source })
                  : t('strategy.typedCql')
              }}
            </th>
            <th>
              <span class="visually-hidden">{{ t('samples.acts') }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <LineRow
            v-for="l in shown"
            :key="l.number"
            :line="l"
            :folded="folded.has(l.block ?? '') ? under(l.block) : 0"
            @fold="fold(l.block ?? '')"
            @copy="copy(l.text, t('strategy.copiedLine', { n: l.number }))"
          />
        </tbody>
      </table>
      <p v-if="!written.whole" class="wrong" role="alert">{{ t('strategy.nothing') }}</p>
      <div class="under">
        <MakesShort />
        <section v-if="written.whole" class="card" :aria-label="t('strategy.whole')">
          <h2 class="sect">{{ t('strategy.whole') }}</h2>
          <p class="mono query">{{ written.whole }}</p>
          <SourceNotes v-if="written.notes.length" :notes="written.notes" />
          <p v-else-if="written.source" class="small">{{ t('strategy.noNotes') }}</p>
          <p v-if="written.notes.length" class="small">
            {{ t('strategy.notes', { n: n(written.notes.length, 'whole') }, written.notes.length) }}
          </p>
        </section>
      </div>
    </template>
  </div>
</template>

<style scoped>
.top {
  margin-bottom: 10px;
  flex-wrap: wrap;
}

.top .typed {
  width: auto;
}

th.typed {
  border-left: 1px solid var(--line);
  padding-left: 14px;
}

.under {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 18px;
  margin-top: 14px;
  align-items: start;
}

.under > :only-child {
  grid-column: 1 / -1;
}

.card {
  padding: 10px 12px;
}

.query {
  overflow-wrap: anywhere;
  margin: 5px 0;
}

.wrong {
  color: var(--miss);
  margin-top: 8px;
}

@media (max-width: 1000px) {
  .under {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
