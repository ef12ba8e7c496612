<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type NewDraw, type RoughConcept } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import MarkedText from '@/parts/MarkedText.vue'
import { useMade } from '@/parts/made'
import SourceNotes from '@/parts/SourceNotes.vue'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

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
const each = ref(false)
const from = ref<number[]>([])
const failed = ref('')
const beginning = ref(false)

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
  review.document.blocks.map((b) => ({ name: b.name, words: parted(rough.value[b.id] ?? '') })),
)
const full = computed(() => concepts.value.filter((c) => c.words.length))
const asked = refDebounced(
  computed(() => JSON.stringify({ source: from.value[0], concepts: concepts.value })),
  350,
)

const preview = useQuery({
  queryKey: computed(() => ['preview', asked.value]),
  queryFn: ({ signal }) =>
    ask(
      api.POST('/api/sources/{source}/preview', {
        params: { path: { source: from.value[0] } },
        body: { concepts: concepts.value },
        signal,
      }),
    ),
  enabled: () => from.value.length > 0 && full.value.length > 0,
  retry: false,
  staleTime: 60_000,
})
const settled = computed(
  () =>
    asked.value === JSON.stringify({ source: from.value[0], concepts: concepts.value }) &&
    !preview.isFetching.value,
)
const found = computed(() => (full.value.length ? preview.data.value : undefined))
const together = computed(() => found.value?.together)
const wanted = computed(() => Math.min(atMost.value || 0, together.value?.records ?? 0))
const countOf = (name: string) => found.value?.concepts.find((c) => c.name === name)
const nothing = computed(() => {
  const what = found.value?.nothing
  if (!what || !settled.value) return ''
  if (what === 'together') return t('draw.nothingTogether')
  return t('draw.nothing', {
    concept: review.document.blocks.find((b) => b.name === what)?.concept || what,
  })
})
const hows = ['all', 'newest', 'years', 'random'] as const

async function begin(order: Partial<NewDraw> = {}) {
  failed.value = ''
  beginning.value = true
  try {
    const name = full.value.map((c) => c.words[0].replace(/[*?]/g, '')).join(' and ')
    await ask(
      api.POST('/api/reviews/{review}/draws', {
        params: { path: { review: review.id } },
        body: {
          name: name || 'sample',
          sources: from.value,
          concepts: full.value,
          each: each.value,
          how: how.value,
          atMost: atMost.value,
          seed: seed.value,
          ...order,
        },
      }),
    )
    sources.fresh('draws')
  } catch (error) {
    failed.value = problem(error)
  } finally {
    beginning.value = false
  }
}

function toggle(id: number) {
  from.value = from.value.includes(id)
    ? from.value.length > 1
      ? from.value.filter((x) => x !== id)
      : from.value
    : [...from.value, id]
}
const anything = (): Partial<NewDraw> => ({
  name:
    from.value.length > 1
      ? t('draw.anythingFrom')
      : t('draw.anythingName', { source: source.value?.name ?? '' }),
  concepts: [],
  each: false,
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
        <div class="rough">
          <template v-for="b in review.document.blocks" :key="b.id">
            <BlockStamp :block="b.id" />
            <label
              :for="`rough-${b.id}`"
              class="cut"
              :class="{ dim: !concepts.find((c) => c.name === b.name)?.words.length }"
              >{{ b.concept || t('block.unnamed') }}</label
            >
            <input
              :id="`rough-${b.id}`"
              v-model="rough[b.id]"
              class="field mono"
              :placeholder="t('draw.leftOut')"
              :aria-label="t('draw.words', { concept: b.concept || b.name })"
              maxlength="4000"
              spellcheck="false"
              autocomplete="off"
            />
            <button
              v-if="countOf(b.name)?.count"
              class="open num"
              :class="{ stale: !settled, nil: !countOf(b.name)?.count?.records }"
              :title="t('counted.made', { source: source?.name ?? '' })"
              @click="made.show(countOf(b.name)!.count!, b.concept, source!)"
            >
              {{ n(countOf(b.name)!.count!.records, 'whole') }}
            </button>
            <span v-else />
            <p
              v-for="(r, i) in countOf(b.name)?.refused ?? []"
              :key="`${b.id}-${i}`"
              class="wrong small wide"
              role="alert"
            >
              {{ r.message }}
            </p>
          </template>
        </div>
        <p v-if="!review.document.blocks.length" class="small">{{ t('draw.noConcepts') }}</p>
        <div class="row opts">
          <span class="small">{{ t('draw.from') }}</span>
          <span class="group" role="group" :aria-label="t('draw.sources')">
            <button
              v-for="s in sources.on"
              :key="s.id"
              class="opt"
              :class="{ on: from.includes(s.id) }"
              :aria-pressed="from.includes(s.id)"
              @click="toggle(s.id)"
            >
              {{ s.name }}
            </button>
          </span>
          <router-link
            v-if="!sources.on.length"
            class="btn outline"
            :to="{ name: 'sources', params: { review: review.id } }"
            >{{ t('draw.add') }}</router-link
          >
          <span class="group" role="group" :aria-label="t('draw.how')">
            <button
              v-for="h in hows"
              :key="h"
              class="opt"
              :class="{ on: how === h }"
              :aria-pressed="how === h"
              @click="how = h"
            >
              {{ t(`how.${h}`) }}
            </button>
          </span>
          <label class="small"
            >{{ t('draw.atMost') }}
            <input
              v-model.number="atMost"
              class="field many"
              type="number"
              min="1"
              max="1000000"
              :aria-label="t('draw.atMostLabel')"
          /></label>
          <label v-if="how === 'random'" class="small"
            >{{ t('draw.seed') }}
            <input v-model.number="seed" class="field few" type="number" min="0" max="2147483647"
          /></label>
          <span v-if="full.length > 1" class="group" role="group" :aria-label="t('draw.what')">
            <button class="opt" :class="{ on: !each }" :aria-pressed="!each" @click="each = false">
              {{ t('draw.together') }}
            </button>
            <button class="opt" :class="{ on: each }" :aria-pressed="each" @click="each = true">
              {{ t('draw.each') }}
            </button>
          </span>
        </div>
        <div class="row go">
          <button
            class="btn"
            :disabled="
              beginning ||
              !from.length ||
              !full.length ||
              (!each && settled && !wanted) ||
              !(atMost > 0)
            "
            @click="begin()"
          >
            {{
              each && full.length > 1
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
        <SourceNotes v-if="together" :notes="together.notes" />
        <p v-if="nothing" class="nothing" role="status">{{ nothing }}</p>
        <p v-if="failed || preview.error.value" class="wrong" role="alert">
          {{ failed || problem(preview.error.value) }}
        </p>
      </div>
      <div class="titles">
        <h3 class="sect">{{ t('draw.firstTitles') }}</h3>
        <ol
          v-if="found?.titles.length"
          tabindex="0"
          :aria-label="t('draw.firstTitles')"
          :class="{ stale: !settled }"
        >
          <li v-for="(x, i) in found.titles" :key="i">
            <MarkedText :pieces="x.title" /> <span class="small">{{ x.year || '' }}</span>
          </li>
        </ol>
        <p v-else-if="!nothing && !preview.error.value" class="small">{{ t('draw.noTitles') }}</p>
        <p v-if="found?.titles.length" class="small judge">{{ t('draw.judge') }}</p>
      </div>
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

.rough {
  display: grid;
  grid-template-columns: 24px minmax(80px, 142px) minmax(0, 1fr) auto;
  gap: 6px 9px;
  align-items: center;
}

.rough .field {
  min-width: 0;
}

.wide {
  grid-column: 3 / 5;
}

.dim {
  color: var(--ink-2);
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

.open.nil {
  color: var(--miss);
}

.stale {
  opacity: 0.55;
}

.opts {
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 13px;
}

.many {
  width: 84px;
}

.few {
  width: 70px;
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

.titles {
  border-left: 1px solid var(--line);
  padding-left: 16px;
  min-width: 0;
  display: flex;
  flex-direction: column;
}

.titles ol {
  max-height: 208px;
  overflow-y: auto;
}

.titles li {
  padding: 5px 0;
  border-bottom: 1px solid var(--line-soft);
  line-height: 1.35;
  overflow-wrap: anywhere;
}

.judge {
  padding-top: 6px;
}

@media (max-width: 1100px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }

  .titles {
    border-left: 0;
    padding-left: 0;
  }
}
</style>
