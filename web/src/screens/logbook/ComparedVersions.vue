<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type RecordSet, type Version } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useJudging } from '@/parts/judging'
import { useReader } from '@/parts/reader'
import { useCopying } from '@/parts/copying'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import ComparedLines from './ComparedLines.vue'
import { useVersionName } from './versions'

/** What changed between two versions: line by line, over the sample, at a source, and among the key studies. */
const props = defineProps<{ older: Version; newer: Version }>()
const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const reader = useReader()
const judging = useJudging()
const problem = useProblem()
const copying = useCopying()
const named = useVersionName()

const asked = useFigure(
  figures.comparedVersions,
  () => ({ older: props.older.revision, newer: props.newer.revision }),
  { keep: true },
)
const c = computed(() => asked.data.value)

const between = useMutation({
  mutationFn: () =>
    ask(
      api.GET('/api/reviews/{review}/versions/between', {
        params: {
          path: { review: review.id },
          query: {
            older: props.older.revision,
            newer: props.newer.revision,
            source: sources.chosen!.id,
          },
        },
      }),
    ),
})
watch(
  () => [props.older.revision, props.newer.revision, sources.chosen?.id],
  () => between.reset(),
)

const found = (v: Version): RecordSet => ({ kind: 'strategy', revision: v.revision })
const differ = (of: Version, less: Version): RecordSet => ({
  kind: 'less',
  of: found(of),
  less: found(less),
})
function open(of: Version, less: Version, title: string) {
  reader.list(differ(of, less), title)
}
const copy = () => copying(c.value?.words ?? '', t('compared.paragraph'))
</script>

<template>
  <section class="compared" :aria-label="t('compared.title')">
    <h2 class="sect">
      {{ t('compared.of', { older: named(older), newer: named(newer) }) }}
    </h2>
    <p v-if="asked.error.value" class="wrong" role="alert">{{ problem(asked.error.value) }}</p>
    <template v-else-if="c">
      <div class="row sums">
        <template v-if="c.sampled">
          <div>
            <button
              class="link display big"
              :disabled="!c.gained"
              @click="open(newer, older, t('compared.gainedTitle'))"
            >
              +{{ n(c.gained, 'whole') }}
            </button>
            <span class="small">{{ t('compared.gained') }}</span>
            <button
              v-if="c.gained"
              class="link small judge"
              :aria-label="t('compared.judgeGained')"
              @click="judging.judge(differ(newer, older), t('compared.gainedTitle'))"
            >
              {{ t('compared.judge') }}
            </button>
          </div>
          <div>
            <button
              class="link display big"
              :disabled="!c.lost"
              @click="open(older, newer, t('compared.lostTitle'))"
            >
              −{{ n(c.lost, 'whole') }}
            </button>
            <span class="small">{{ t('compared.lost') }}</span>
            <button
              v-if="c.lost"
              class="link small judge"
              :aria-label="t('compared.judgeLost')"
              @click="judging.judge(differ(older, newer), t('compared.lostTitle'))"
            >
              {{ t('compared.judge') }}
            </button>
          </div>
          <div>
            <span class="display big">{{ n(c.kept, 'whole') }}</span>
            <span class="small">{{ t('compared.kept') }}</span>
          </div>
        </template>
        <div v-if="c.keys">
          <span class="display big">{{ c.oldKeys }} → {{ c.newKeys }}</span>
          <span class="small">{{ t('compared.keys', { n: c.keys }) }}</span>
        </div>
        <span class="grow" />
        <div v-if="sources.chosen">
          <template v-if="between.data.value"
            ><span v-if="between.data.value.gained"
              >+{{ n(between.data.value.gained.records, 'whole') }}</span
            >
            <span v-if="between.data.value.lost"
              >, −{{ n(between.data.value.lost.records, 'whole') }}</span
            >
            <span class="small">{{ t('compared.at', { source: sources.chosen.name }) }}</span>
          </template>
          <button
            v-else
            class="btn outline"
            :disabled="between.isPending.value"
            @click="between.mutate()"
          >
            {{ t('compared.askAt', { source: sources.chosen.name }) }}
          </button>
          <p v-if="between.error.value" class="wrong" role="alert">
            {{ problem(between.error.value) }}
          </p>
        </div>
      </div>
      <ul v-if="c.brought.length + c.dropped.length" class="studies">
        <li v-for="s in c.brought" :key="s.id">
          <b class="gold">{{ t('compared.brought') }}</b>{{ ' ' }}
          <button class="link" @click="reader.one(s.id, s.title)">{{ s.title }}</button>
        </li>
        <li v-for="s in c.dropped" :key="s.id">
          <b class="wrong">{{ t('compared.dropped') }}</b>{{ ' ' }}
          <button class="link" @click="reader.one(s.id, s.title)">{{ s.title }}</button>
        </li>
      </ul>
      <p v-if="!c.lines.length">{{ t('compared.same') }}</p>
      <ComparedLines v-else :lines="c.lines" />
      <details class="words">
        <summary class="small">{{ t('compared.inWords') }}</summary>
        <p>{{ c.words }}</p>
        <button class="btn bare" @click="copy">{{ t('compared.copy') }}</button>
      </details>
    </template>
  </section>
</template>

<style scoped>
.judge {
  margin-left: 7px;
}

.compared {
  margin-top: 18px;
}

.sums {
  gap: 26px;
  align-items: baseline;
  margin: 8px 0;
  flex-wrap: wrap;
}

.big {
  font-size: 22px;
  margin-right: 6px;
}

.studies li {
  padding: 2px 0;
}

.gold {
  color: var(--gold-deep);
}

.wrong {
  color: var(--miss);
}

.words {
  margin-top: 10px;
}

.words summary {
  cursor: pointer;
}

.words p {
  max-width: 80ch;
  margin: 6px 0;
}
</style>
