<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced, useEventListener, useStorage } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { api, ask } from '@/api/client'
import EmptyState from '@/parts/EmptyState.vue'
import VocabularyChoice from '@/parts/VocabularyChoice.vue'
import { offer } from '@/state/actions'
import { useBench } from '@/state/bench'
import { useDecide } from '@/state/decide'
import { decisionKey, useReview } from '@/state/review'
import { useChoice } from './choice'
import HeadingPanel from './HeadingPanel.vue'
import LeadList from './LeadList.vue'

/** A lay word in, the heading that stands for it out: what it means, where it stands, what it brings, into a block. */
const { t, n } = useI18n()
const review = useReview()
const bench = useBench()
const route = useRoute()
const router = useRouter()
const { decide } = useDecide()

const typed = ref(String(route.query.word ?? ''))
const settled = refDebounced(typed, 120)
const label = ref(route.query.label ? String(route.query.label) : '')
const blockId = ref(String(route.query.block ?? ''))
const language = useStorage('tamiz-heading-language', '')
const field = ref<HTMLInputElement>()
const list = ref<InstanceType<typeof LeadList>>()
const panel = ref<InstanceType<typeof HeadingPanel>>()

/** Which block each heading suits, as Harvest knows it. */
const suits = useQuery({
  queryKey: computed(() => ['suits', review.id, 'headings', review.revision, review.lookStamp]),
  queryFn: ({ signal }) =>
    ask(
      api.GET('/api/reviews/{review}/suits', {
        params: {
          path: { review: review.id },
          query: { ...review.asked.query, facet: 'headings' },
        },
        signal,
      }),
    ),
  enabled: () => review.vocabulary !== undefined && review.sample !== undefined,
  placeholderData: keepPreviousData,
})
const suited = computed(
  () =>
    suits.data.value?.items.find((x) => x.item.toLowerCase() === label.value.toLowerCase())?.block,
)
/** The block that was chosen; else the one that has the heading, or that it suits, or the first. */
const block = computed(() => {
  const blocks = review.document.blocks
  const has = (id?: string) => blocks.find((b) => b.id === id)
  const holds = review.kept.get(decisionKey('headings', label.value.toLowerCase()))?.[0]
  return (
    has(blockId.value) ??
    has(holds) ??
    has(suited.value) ??
    blocks.find((b) => b.searched && !b.negated) ??
    blocks[0]
  )
})
/** The seeds of a block, looked up together; a typed word goes before them. */
const seeds = ref(!!route.query.seeds)
const words = computed(() =>
  seeds.value ? (block.value?.seeds ?? []) : [settled.value.trim()].filter(Boolean),
)
watch(typed, (word) => word && (seeds.value = false))

const found = useQuery({
  queryKey: computed(() => [
    'headings',
    review.id,
    review.lookStamp,
    review.keysStamp,
    words.value.join('\n'),
    language.value,
    seeds.value ? block.value?.id : '',
    review.vocabulary?.id,
  ]),
  queryFn: ({ signal }) =>
    ask(
      api.GET('/api/reviews/{review}/headings', {
        params: {
          path: { review: review.id },
          query: {
            ...review.asked.query,
            word: words.value.slice(0, 12),
            language: language.value || undefined,
            block: seeds.value ? block.value?.id : undefined,
          },
        },
        signal,
      }),
    ),
  enabled: () => review.vocabulary !== undefined,
  placeholderData: keepPreviousData,
})
// The first that is found is looked at, unless another was chosen from what is found now.
const chosen = ref(false)
watch([words, language], () => (chosen.value = false))
watch(
  () => found.data.value,
  (now) => {
    if (!chosen.value && words.value.length && now?.leads.length) label.value = now.leads[0].label
  },
)

const one = useQuery({
  queryKey: computed(() => [
    'heading',
    review.id,
    review.revision,
    review.lookStamp,
    review.keysStamp,
    label.value,
    block.value?.id,
    language.value,
    review.vocabulary?.id,
  ]),
  queryFn: ({ signal }) =>
    ask(
      api.GET('/api/reviews/{review}/headings/one', {
        params: {
          path: { review: review.id },
          query: {
            ...review.asked.query,
            label: label.value,
            block: block.value?.id,
            language: language.value || undefined,
          },
        },
        signal,
      }),
    ),
  enabled: () => review.vocabulary !== undefined && label.value !== '',
  placeholderData: keepPreviousData,
  retry: false,
})
const whole = computed(() => (label.value ? one.data.value : undefined))
const taking = useChoice(whole, block)

function look(at: string) {
  chosen.value = true
  label.value = at
}
watch([label, blockId, settled, seeds], () => {
  if (route.name !== 'headings') return
  void router.replace({
    query: {
      ...(route.query.look ? { look: route.query.look } : {}),
      ...(settled.value.trim() && !seeds.value ? { word: settled.value.trim() } : {}),
      ...(label.value ? { label: label.value } : {}),
      ...(blockId.value ? { block: blockId.value } : {}),
      ...(seeds.value ? { seeds: '1' } : {}),
    },
  })
})
watch(
  () => route.query.label,
  (to) => {
    if (to && String(to) !== label.value) look(String(to))
  },
)

// What would be taken shows on the bench as it is chosen.
const edits = computed(() => (block.value && whole.value ? taking.edits(block.value) : []))
watch(
  edits,
  (now) =>
    bench.rest(
      now.length && block.value && whole.value
        ? { edits: now, label: `+ ${whole.value.heading}`, block: block.value.id }
        : undefined,
    ),
  { immediate: true },
)
onBeforeUnmount(() => bench.rest(undefined))

function take(into = block.value) {
  if (!into || !whole.value) return
  const now = taking.edits(into)
  if (!now.length) return
  const what = now.some((e) => e.op === 'patchTerm') ? 'changeHeading' : 'takeHeading'
  review.change(
    { key: what, params: { heading: whole.value.heading, block: into.name } },
    { edits: now },
  )
}
function park() {
  if (!whole.value) return
  const heading = whole.value.heading
  decide([{ facet: 'headings', item: heading, key: heading.toLowerCase() }], 'parked')
}

async function search() {
  await nextTick()
  field.value?.focus()
  field.value?.select()
}
const typing = (e: Event) =>
  e.target instanceof HTMLElement &&
  e.target.closest(
    'input:not([type=checkbox]):not([type=radio]), textarea, select, [contenteditable], dialog, .v-overlay',
  )
useEventListener(document, 'keydown', (e: KeyboardEvent) => {
  if (e.ctrlKey || e.metaKey || e.altKey || typing(e)) return
  if (e.key === '/') {
    e.preventDefault()
    void search()
  } else if (/^[1-9]$/.test(e.key) && whole.value) {
    const into = review.document.blocks[Number(e.key) - 1]
    if (into) take(into)
  } else if (e.key.toLowerCase() === 'p' && whole.value) park()
})
function fromField(e: KeyboardEvent) {
  if (e.key === 'ArrowDown' || e.key === 'Enter') {
    e.preventDefault()
    list.value?.focus()
  }
}
offer(() => [
  { name: t('headings.key.search'), hint: '/', go: search },
  ...review.document.blocks
    .filter((b) => b.seeds.length)
    .map((b) => ({ name: t('headings.seeds', { block: b.name }), go: () => lookSeeds(b.id) })),
])

function lookSeeds(of: string) {
  blockId.value = of
  typed.value = ''
  seeds.value = true
}
const keys = computed(() => [
  ['/', t('headings.key.search')],
  ['↑ ↓', t('headings.key.move')],
  ['→ ←', t('headings.key.into')],
  ['Enter', t('headings.key.enter')],
  ['Space', t('headings.key.tick')],
  ['1 … 9', t('headings.key.take')],
  ['P', t('headings.key.park')],
])
</script>

<template>
  <div class="screen">
    <EmptyState
      v-if="!review.vocabulary"
      :title="t('headings.emptyTitle')"
      :text="t('headings.emptyText')"
    >
      <VocabularyChoice /><router-link
        class="btn outline"
        :to="{ name: 'samples', params: { review: review.id } }"
        >{{ t('vocabulary.bring') }}</router-link
      >
    </EmptyState>
    <template v-else>
      <div class="row top">
        <input
          ref="field"
          v-model="typed"
          class="field mono"
          type="search"
          maxlength="200"
          :aria-label="t('headings.search')"
          :placeholder="t('headings.placeholder')"
          @keydown="fromField"
        />
        <span class="small" aria-live="polite">{{
          words.length && found.data.value
            ? t(
                'headings.ways',
                {
                  name: review.vocabulary.name,
                  n: n(found.data.value.leads.length, 'whole') + (found.data.value.cut ? '+' : ''),
                },
                found.data.value.leads.length,
              )
            : review.vocabulary.name
        }}</span>
        <span class="grow" />
        <template v-for="b in review.document.blocks" :key="b.id">
          <button
            v-if="b.seeds.length"
            class="btn bare"
            :aria-pressed="seeds && b.id === block?.id"
            :title="b.seeds.join(', ')"
            @click="lookSeeds(b.id)"
          >
            {{ t('headings.seeds', { block: b.name }) }}
          </button>
        </template>
        <select
          v-if="(found.data.value?.languages.length ?? 0) > 1"
          v-model="language"
          class="field language"
          :aria-label="t('headings.language')"
        >
          <option value="">{{ review.vocabulary.language || '–' }}</option>
          <option
            v-for="l in found.data.value!.languages.filter(
              (x) => x !== review.vocabulary?.language,
            )"
            :key="l"
            :value="l"
          >
            {{ l }}
          </option>
        </select>
      </div>
      <div class="parts">
        <LeadList
          ref="list"
          :found="words.length ? found.data.value : undefined"
          :pending="found.isPending.value"
          :words="words"
          :seeds="seeds ? block?.name : undefined"
          :selected="whole?.heading ?? label"
          :keys="keys"
          @look="look"
          @into="panel?.focus()"
        />
        <HeadingPanel
          v-if="whole"
          ref="panel"
          :whole="whole"
          :block="block"
          :taking="taking"
          :edits="edits"
          :language="language"
          @look="look"
          @out="list?.focus()"
          @take="take()"
          @park="park"
          @block="blockId = $event"
        />
        <p v-else-if="one.error.value && label" class="small" role="alert">
          {{ t('headings.none') }}
        </p>
        <EmptyState
          v-else-if="!label"
          :title="t('headings.startTitle')"
          :text="t('headings.start')"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.screen {
  container: headings / inline-size;
  display: flex;
  flex-direction: column;
  min-height: 100%;
}

@media (min-width: 1000px) {
  .screen {
    height: 100%;
    min-height: 0;
  }
}

.top {
  margin-bottom: 10px;
  flex-wrap: wrap;
}

.top .field {
  width: 300px;
}

.top .language {
  width: auto;
}

.top [aria-pressed='true'] {
  text-decoration: underline;
}

.parts {
  display: grid;
  grid-template-columns: 236px minmax(0, 1fr);
  gap: 18px;
  flex: 1;
  min-height: 0;
}

@container headings (max-width: 640px) {
  .parts {
    display: block;
    flex: none;
  }

  .parts > :deep(.leads) {
    max-height: 260px;
    margin-bottom: 14px;
  }

  .parts > :deep(.leads .keys) {
    display: none;
  }

  .parts > :deep(.panel) {
    overflow: visible;
  }
}
</style>
