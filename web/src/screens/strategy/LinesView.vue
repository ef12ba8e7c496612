<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import EmptyState from '@/parts/EmptyState.vue'
import { saveBlob } from '@/parts/files/blob'
import { useInstead } from '@/parts/instead'
import { useCopying } from '@/parts/copying'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import CarryHeadings from './CarryHeadings.vue'
import LinesFor from './LinesFor.vue'
import LineRow from './LineRow.vue'
import MakesShort from './MakesShort.vue'
import OwnWords from './OwnWords.vue'
import PutTogether from './PutTogether.vue'
import WholeQuery from './WholeQuery.vue'
import { useLines, type Line } from './lines'
import { useWritten } from './written'
import SampleMark from '@/parts/SampleMark.vue'

/** What leaves the house: numbered lines as they are meant, and beside each how a source is asked it, or how it is typed. */
const { t, n, d } = useI18n()
const review = useReview()
const sources = useSources()
const problem = useProblem()
const copy = useCopying()
const instead = useInstead()

/** Whose names it is written in: a source's, a dialect's, or those of CQL as Tamiz writes it. */
const wanted = useStorage<string>('tamiz-typed-in', '')
const { written, typed, typing, dialect, asked } = useWritten(wanted)
const lines = useLines(
  computed(() => written.value?.lines ?? []),
  typed,
)
const whole = computed(() => typed.value?.whole.join('\n') ?? written.value?.whole ?? '')
const wholeNotes = computed(() => typed.value?.notes ?? written.value?.notes ?? [])
const named = computed(() => dialect.value?.title ?? written.value?.source)

const folded = ref(new Set<string>())
function fold(block: string) {
  const next = new Set(folded.value)
  if (!next.delete(block)) next.add(block)
  folded.value = next
}
/** Lines that somebody put together of others are no part of what is searched: they are copied one by one. */
const searched = computed(() => lines.value.filter((l) => !l.off && l.kind !== 'own'))
const own = computed(() => lines.value.filter((l) => l.kind === 'own' && !l.lacks))
const numbered = computed(() => searched.value.length)
const shown = computed(() =>
  lines.value.filter((l) => l.kind !== 'term' || !folded.value.has(l.block ?? '')),
)
const under = (block?: string) =>
  lines.value.filter((l) => l.kind === 'term' && !l.off && l.block === block).length

const all = () => (typed.value?.byLine ? typed.value.text : listed(searched.value))
const listed = (some: Line[]) =>
  some.flatMap((l) => l.texts.map((text, i) => `${l.numbers[i] ?? l.number}\t${text}`)).join('\n')
function save() {
  const w = written.value
  if (!w) return
  const now = new Date()
  const said = [
    ...new Set([...wholeNotes.value, ...lines.value.flatMap((l) => l.notes)].map(instead)),
  ]
  const text = [
    review.saved?.name ?? '',
    `${named.value ?? t('strategy.cql')}. ${t('strategy.written', { day: d(now, 'day'), time: d(now, 'time') })}`,
    '',
    all(),
    '',
    t('strategy.whole'),
    whole.value,
    ...(own.value.length ? ['', t('strategy.ownLines'), listed(own.value)] : []),
    ...(said.length ? ['', ...said.map((x) => `* ${x}`)] : []),
    '',
  ].join('\n')
  saveBlob(
    new Blob([text], { type: 'text/plain' }),
    `${review.saved?.name ?? ''}, ${named.value ?? 'CQL'}.txt`,
  )
}
</script>

<template>
  <div>
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
        <LinesFor v-model="wanted" />
        <span class="grow" />
        <button class="btn outline" @click="save">{{ t('strategy.save') }}</button>
        <button
          class="btn outline"
          :disabled="!whole"
          @click="copy(whole, t('strategy.copiedWhole'))"
        >
          {{ t('strategy.copyWhole') }}
        </button>
        <button
          class="btn"
          @click="copy(all(), t('strategy.copiedAll', { n: numbered }, numbered))"
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
            <th v-if="review.sample">{{ t('strategy.sample') }}<SampleMark /></th>
            <th v-if="review.keyStudies.length">{{ t('strategy.keys') }}</th>
            <th class="left typed">
              {{
                dialect
                  ? t('strategy.typedBy', { dialect: dialect.title })
                  : written.source
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
            :key="l.line ?? (l.number || l.term)"
            :line="l"
            :folded="folded.has(l.block ?? '') ? under(l.block) : 0"
            @fold="fold(l.block ?? '')"
            @copy="copy(l.texts.join('\n'), t('strategy.copiedLine', { n: l.number }))"
          />
        </tbody>
      </table>
      <div class="row own">
        <PutTogether />
        <span class="small">{{ t('strategy.ownHint') }}</span>
      </div>
      <p v-if="typing.error.value && dialect" class="wrong" role="alert">
        {{ problem(typing.error.value) }}
      </p>
      <p v-else-if="!written.whole" class="wrong" role="alert">{{ t('strategy.nothing') }}</p>
      <p v-if="typed && (typed.more || typed.fewer)" class="cost" role="status">
        {{
          t('strategy.cost', {
            dialect: typed.title,
            more: n(typed.more ?? 0, 'whole'),
            fewer: n(typed.fewer ?? 0, 'whole'),
          })
        }}
      </p>
      <CarryHeadings
        v-if="typed?.carry?.headings.length"
        :carry="typed.carry"
        :dialect="typed.dialect"
      />
      <OwnWords v-if="typed" :dialect="typed.dialect" :title="typed.title" />
      <div class="under">
        <MakesShort />
        <WholeQuery
          v-if="whole"
          :queries="typed?.whole ?? [whole]"
          :notes="wholeNotes"
          :named="!!named"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.top {
  margin-bottom: 10px;
  flex-wrap: wrap;
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

.own {
  margin-top: 8px;
  flex-wrap: wrap;
  gap: 10px;
}

.cost {
  color: var(--gold-deep);
  margin-top: 8px;
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
