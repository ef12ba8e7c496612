<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { NewDraw, RoughConcept } from '@/api/client'
import { useMade } from '@/parts/made'
import SourceNotes from '@/parts/SourceNotes.vue'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import DrawOptions from './DrawOptions.vue'
import FirstTitles from './FirstTitles.vue'
import { useDrawing } from './drawing'
import RoughWords from './RoughWords.vue'
import { useRoughPreview } from './roughPreview'

/** Rough words for each concept; what they find at a source shows as they are typed, before anything is drawn. */
const { t, n, d } = useI18n()
const review = useReview()
const sources = useSources()
const problem = useProblem()
const made = useMade()

const rough = ref<Record<string, string>>({})
const how = ref<NewDraw['how']>('all')
const atMost = ref(5000)
const seed = ref(1)
const what = ref<'parts' | 'together' | 'each'>('parts')
const each = computed(() => what.value === 'each')
/** Several concepts are drawn in parts, so that each block can be judged by records that the others chose. */
const inParts = computed(() => what.value === 'parts' && full.value.length > 1)
const from = ref<number[]>([])

// A concept that is searched begins with its seed words; one that is kept out is left out.
watch(
  () => review.document.blocks,
  (blocks) => {
    for (const b of blocks) rough.value[b.id] ??= b.searched ? b.seeds.join(', ') : ''
  },
  { immediate: true },
)
watch(
  () => [sources.on, review.look.source] as const,
  ([on, chosen]) => {
    from.value = from.value.filter((id) => on.some((s) => s.id === id))
    if (!from.value.length && on.length)
      from.value = [on.find((s) => s.id === chosen)?.id ?? on[0].id]
  },
  { immediate: true },
)
const source = computed(() => sources.all.find((s) => s.id === from.value[0]))
const parted = (s: string) =>
  s
    .split(/[,;\n]/)
    .map((w) => w.trim())
    .filter(Boolean)
const concepts = computed<RoughConcept[]>(() =>
  review.document.blocks.map((b) => ({
    name: b.name,
    block: b.id,
    words: parted(rough.value[b.id] ?? ''),
  })),
)
const full = computed(() => concepts.value.filter((c) => c.words.length))
const { preview, settled, found } = useRoughPreview(
  computed(() => from.value[0]),
  concepts,
)
const together = computed(() => found.value?.together)
const wanted = computed(() => Math.min(atMost.value || 0, together.value?.records ?? 0))
const nothing = computed(() => {
  const what = found.value?.nothing
  if (!what || !settled.value) return ''
  if (what === 'together') return t('draw.nothingTogether')
  return t('draw.nothing', {
    concept: review.document.blocks.find((b) => b.name === what)?.concept || what,
  })
})
const { begin, beginning, failed } = useDrawing(() => ({
  name:
    full.value.map((c) => c.words[0].replace(/[*?]/g, '')).join(' and ') || t('draw.sampleName'),
  sources: from.value,
  concepts: full.value,
  each: each.value,
  parts: inParts.value,
  how: how.value,
  atMost: atMost.value,
  seed: seed.value,
}))

const anything = (): Partial<NewDraw> => ({
  name:
    from.value.length > 1
      ? t('draw.anythingFrom')
      : t('draw.anythingName', { source: source.value?.name ?? '' }),
  concepts: [],
  each: false,
  parts: false,
  how: 'random',
})
</script>

<template>
  <section class="card draw" :aria-label="t('draw.title')">
    <div class="row">
      <h2 class="display">{{ t('draw.title') }}</h2>
      <span class="small">{{ t('draw.hint') }}</span>
    </div>
    <div class="two">
      <div>
        <RoughWords
          v-model="rough"
          :concepts="concepts"
          :found="found"
          :settled="settled"
          :source="source"
        />
        <p v-if="!review.document.blocks.length" class="small">{{ t('draw.noConcepts') }}</p>
        <DrawOptions
          v-model:from="from"
          v-model:how="how"
          v-model:at-most="atMost"
          v-model:seed="seed"
          v-model:what="what"
          :several="full.length > 1"
        />
        <div class="row go">
          <button
            class="btn"
            :disabled="
              beginning ||
              !from.length ||
              !full.length ||
              (!each && !inParts && settled && !wanted) ||
              !(atMost > 0)
            "
            @click="begin()"
          >
            {{
              inParts && atMost > 0
                ? t('draw.beginParts', { n: n(atMost, 'whole') })
                : each && full.length > 1
                  ? t('draw.beginEach')
                  : together || wanted
                    ? t('draw.begin', { n: n(wanted, 'whole') }, wanted)
                    : t('draw.beginBare')
            }}
          </button>
          <template v-if="together">
            <button
              class="open total display"
              :class="{ stale: !settled }"
              :title="t('counted.made', { source: source?.name ?? '' })"
              @click="made.show(together, t('draw.together'), source!)"
            >
              {{ n(together.records, 'whole') }}
            </button>
            <span class="small" role="status"
              >{{ t('draw.in', { source: source?.name ?? '' }) }} ·
              {{
                settled ? t('draw.countedAt', { time: d(together.at, 'time') }) : t('draw.counting')
              }}</span
            >
          </template>
          <span v-else-if="full.length && preview.isFetching.value" class="small" role="status">{{
            t('draw.counting')
          }}</span>
          <span class="grow" />
          <button v-if="source" class="btn bare" :disabled="beginning" @click="begin(anything())">
            {{ t('draw.anything', { source: source.name }) }}
          </button>
        </div>
        <p v-if="inParts" class="small">{{ t('draw.partsTip') }}</p>
        <SourceNotes v-if="together" :notes="together.notes" />
        <p v-if="nothing" class="nothing" role="status">{{ nothing }}</p>
        <p v-if="failed || preview.error.value" class="wrong" role="alert">
          {{ failed || problem(preview.error.value) }}
        </p>
      </div>
      <FirstTitles
        :titles="found?.titles ?? []"
        :settled="settled"
        :quiet="!!nothing || !!preview.error.value"
      />
    </div>
  </section>
</template>

<style scoped>
.draw {
  padding: 12px 14px;
  margin-bottom: 18px;
}

h2 {
  font-size: 16px;
  font-weight: 600;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(220px, 300px);
  gap: 18px;
  margin-top: 8px;
}

.open {
  border: 0;
  background: none;
  padding: 0;
  font-weight: 650;
  cursor: pointer;
  text-align: right;
}

.open:hover {
  text-decoration: underline;
}

.stale {
  opacity: 0.55;
}

.go {
  margin-top: 13px;
  gap: 12px;
  flex-wrap: wrap;
}

.total {
  font-size: 20px;
}

.nothing {
  margin-top: 8px;
  color: var(--gold-deep);
}

@media (max-width: 1100px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
