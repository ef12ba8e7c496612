<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Block, type Suit, type Term } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useReader } from '@/parts/reader'
import { useFinds, useRefusal } from '@/parts/tried'
import { useBench } from '@/state/bench'
import { dropReasons, textual as isTextual, useDecide } from '@/state/decide'
import { newTerm, termText, useReview } from '@/state/review'
import AlikeWords from '@/parts/AlikeWords.vue'
import FoldedWritings from './FoldedWritings.vue'
import FormsList from './FormsList.vue'
import InContext from './InContext.vue'
import NewConcept from './NewConcept.vue'
import StemBox from './StemBox.vue'
import type { Candidate } from './candidates'

/** The selected item: how it goes into a block, what was decided, the words around it, its records. */
const props = defineProps<{
  candidate: Candidate
  chosen: Candidate[]
  suit?: Suit
  target?: Block
  dropping: boolean
  decides: boolean
}>()
const emit = defineEmits<{
  add: [block: Block]
  begin: [name: string]
  park: []
  drop: [reason: string]
  back: []
  dropping: [on: boolean]
  alone: []
  find: [item: string]
}>()

const { t, n, d } = useI18n()
const review = useReview()
const bench = useBench()
const reader = useReader()
/** Opens the records of a heading with a qualifier, from either of the two. */
function beside(other: string) {
  const own = props.candidate.item
  const [heading, qualifier] = props.candidate.facet === 'headings' ? [own, other] : [other, own]
  reader.list(
    { kind: 'term', term: newTerm({ kind: 'heading', heading, qualifiers: [qualifier] }) },
    `${heading} / ${qualifier}`,
  )
}
const said = useRefusal()
const finds = useFinds()
const { termOf, addEdits } = useDecide()

const typed = ref('')
const ticked = ref<string[]>([])
const truncated = ref(false)
const out = ref<string[]>([]) // words that a stem must not find
const near = ref(false)
const alikeOn = ref(false)
const ownReason = ref('')
watch(
  () => props.candidate.key,
  () => {
    typed.value = props.candidate.item
    ticked.value = props.candidate.forms ?? []
    truncated.value = false
    out.value = []
    near.value = false
    ownReason.value = ''
  },
  { immediate: true },
)
const typedSettled = refDebounced(typed, 150)
const edited = computed(() => typed.value.trim() !== props.candidate.item)

// Someone who runs down the list with a key held does not want the words of every item.
const settled = refDebounced(
  computed(() => props.candidate.item),
  90,
)
const detail = useQuery({
  queryKey: computed(() => [
    'item',
    review.id,
    review.lookStamp,
    review.keysStamp,
    props.candidate.facet,
    settled.value,
  ]),
  queryFn: () =>
    ask(
      api.GET('/api/reviews/{review}/item', {
        params: {
          path: { review: review.id },
          query: { look: review.look.name, facet: props.candidate.facet, item: settled.value },
        },
      }),
    ),
  placeholderData: keepPreviousData,
})
const item = computed(() =>
  detail.data.value?.item === props.candidate.item ? detail.data.value : undefined,
)
const stems = computed(() => item.value?.stems ?? [])

const tried = useQuery({
  queryKey: computed(() => [
    'term',
    review.id,
    review.lookStamp,
    review.keysStamp,
    typedSettled.value,
  ]),
  queryFn: () =>
    ask(
      api.POST('/api/reviews/{review}/terms', {
        params: review.asked,
        body: { typed: typedSettled.value },
      }),
    ),
  enabled: () => edited.value && props.candidate.facet !== 'headings',
})
const refused = computed(() =>
  edited.value && tried.data.value?.refused ? said(tried.data.value.refused) : '',
)

/** What is added: what was typed; or the forms that are ticked, truncated where that is wanted. */
const texts = computed(() => {
  if (edited.value) return [typed.value.trim()].filter(Boolean)
  const forms = props.candidate.forms ? ticked.value : [props.candidate.item]
  if (!truncated.value) return forms
  // A stem that would find what is to be kept out is not used: its forms are listed instead.
  const used = stems.value.filter(
    (s) =>
      s.forms.some((f) => forms.includes(f)) && !s.outside.some((o) => out.value.includes(o.word)),
  )
  return [
    ...used.map((s) => s.term),
    ...forms.filter((f) => !used.some((s) => s.forms.includes(f))),
  ]
})
function terms(): Term[] {
  if (refused.value) return []
  if (near.value && pair.value)
    return [
      newTerm({
        kind: 'near',
        left: pair.value[0],
        right: pair.value[1],
        within: 3,
        field: 'text',
        from: termOf(props.candidate).from,
      }),
    ]
  return texts.value.map((text) => termOf(props.candidate, text))
}
const pair = computed(() => {
  const words = props.candidate.item.split(' ')
  return words.length === 2 && item.value?.ways?.some((w) => w.how === 'near') && !edited.value
    ? words
    : undefined
})

function truncate() {
  if (stems.value.length && !edited.value) truncated.value = !truncated.value
}

function alike() {
  if (textual.value) alikeOn.value = !alikeOn.value
}

function preview(b: Block | undefined) {
  if (!b || props.chosen.length > 1) return bench.rest(undefined)
  const all = terms()
  const edits = all.flatMap((term) => addEdits(b, term))
  bench.rest(
    edits.length ? { edits, label: `+ ${all.map(termText).join(', ')}`, block: b.id } : undefined,
  )
}
watch(
  () => [
    props.candidate.key,
    props.candidate.state,
    props.target?.id,
    edited.value ? typedSettled.value : texts.value.join('\n'),
    refused.value,
    review.revision,
    near.value,
    props.chosen.length,
  ],
  () =>
    preview(
      props.decides && (props.candidate.state === 'open' || edited.value)
        ? props.target
        : undefined,
    ),
  { immediate: true },
)

const records = (at?: number) =>
  reader.list(
    { kind: 'item', facet: props.candidate.facet, item: props.candidate.item },
    props.candidate.item,
    at,
  )
const textual = computed(() => isTextual(props.candidate.facet))

/** Who decided it, when, and in which sample: what is known of these. */
const decidedBy = computed(() => {
  const keys = props.candidate.forms ?? [props.candidate.key]
  const from = review.document.blocks
    .flatMap((b) => b.terms)
    .find(
      (term) => term.from?.facet === props.candidate.facet && keys.includes(term.from.item),
    )?.from
  const made = props.candidate.state === 'kept' ? from : props.candidate.decided
  const sample = review.samples.find((s) => s.id === made?.sample)?.name
  return [
    made?.who && t('panel.by', { who: made.who }),
    made?.at && `${d(new Date(made.at), 'short')}, ${d(new Date(made.at), 'time')}`,
    sample && t('panel.seenIn', { sample }),
  ]
    .filter(Boolean)
    .join(' · ')
})
const reasonText = (r: string) =>
  (dropReasons as readonly string[]).includes(r) || r === 'from-record' ? t(`reason.${r}`) : r
const letters = (ids?: string[]) =>
  (ids ?? []).map((id) => review.document.blocks.find((b) => b.id === id)?.name).join(', ')

onBeforeUnmount(() => bench.rest(undefined))

const concept = ref<InstanceType<typeof NewConcept>>()
const name = () => concept.value?.open()

defineExpose({ terms, truncate, alike, name })
</script>

<template>
  <section class="panel" :aria-label="t('panel.label', { item: candidate.item })">
    <div class="head">
      <h2 class="mono">{{ candidate.item }}</h2>
      <button class="link small" @click="records()">
        {{ t('panel.here', { n: n(candidate.row.records, 'whole') }, candidate.row.records) }}
      </button>
      <span v-if="candidate.row.contrastRecords !== undefined" class="small">{{
        t('panel.elsewhere', { n: n(candidate.row.contrastRecords, 'whole') })
      }}</span>
      <span v-if="candidate.row.central" class="small">{{
        t('panel.central', { n: n(candidate.row.central, 'whole') })
      }}</span>
      <span v-if="suit?.missed" class="small missed">{{
        t('suit.missed', { n: suit.missed }, suit.missed)
      }}</span>
      <span v-if="suit?.inside?.length" class="small">{{
        t('suit.inside', { block: letters(suit.inside) })
      }}</span>
    </div>
    <div v-if="chosen.length > 1" class="several" role="status">
      <b>{{ t('marked.title', { n: chosen.length }) }}</b>{{ ' ' }}
      <button class="btn bare" @click="emit('alone')">{{ t('marked.clear') }}</button>
      <p class="small">{{ t('marked.text') }}</p>
      <p class="mono small">
        {{
          chosen
            .slice(0, 12)
            .map((c) => c.item)
            .join(', ')
        }}{{ chosen.length > 12 ? ' …' : '' }}
      </p>
    </div>
    <div v-if="candidate.state !== 'open'" class="decided">
      <template v-if="candidate.state === 'kept'"
        ><BlockStamp v-for="b in candidate.blocks" :key="b" :block="b" />
        {{ t('panel.kept') }}</template
      >
      <span v-else
        >{{ t(`panel.${candidate.state}`)
        }}<template v-if="candidate.reason">: {{ reasonText(candidate.reason) }}</template></span
      >
      <span v-if="decidedBy" class="small">{{ decidedBy }}</span>
      <button class="btn bare" @click="emit('back')">{{ t('act.takeBack') }} <kbd>Z</kbd></button>
    </div>
    <template v-if="decides">
      <FormsList
        v-if="candidate.row.forms && chosen.length < 2"
        v-model="ticked"
        :forms="candidate.row.forms"
      />
      <template v-if="textual && chosen.length < 2">
        <label class="visually-hidden" for="as-term">{{ t('panel.asTerm') }}</label>
        <input
          v-if="(texts.length < 2 && !truncated) || edited"
          id="as-term"
          v-model="typed"
          class="field mono"
          :class="{ edited }"
          maxlength="1000"
          autocomplete="off"
          spellcheck="false"
          @keydown.enter="target && !refused && emit('add', target)"
        />
        <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
        <p v-else-if="edited && tried.data.value?.records !== undefined" class="proposal small">
          {{ finds(tried.data.value) }}
        </p>
      </template>
      <div class="acts">
        <button
          v-for="b in review.document.blocks"
          :key="b.id"
          class="btn"
          :class="{ outline: b.id !== target?.id }"
          :disabled="!!refused || !texts.length"
          :aria-label="t('act.addTo', { block: b.name })"
          :title="b.concept"
          @click="emit('add', b)"
          @mouseenter="preview(b)"
          @mouseleave="preview(target)"
          @focus="preview(b)"
        >
          <template v-if="b.id === target?.id">{{
            t('act.addTo', { block: b.name })
          }}</template><BlockStamp v-else :block="b.id" :size="18" />
        </button>
        <NewConcept
          ref="concept"
          :outline="review.document.blocks.length > 0"
          @begin="emit('begin', $event)"
        />
        <button class="btn outline" @click="emit('park')">{{ t('act.park') }}</button>
        <v-menu :model-value="dropping" @update:model-value="emit('dropping', $event)">
          <template #activator="{ props: menu }"
            ><button class="btn bare" v-bind="menu">{{ t('act.drop') }}</button></template
          >
          <v-list :aria-label="t('panel.why')">
            <v-list-item v-for="(r, i) in dropReasons" :key="r" @click="emit('drop', r)"
              ><v-list-item-title
                ><kbd>{{ i + 1 }}</kbd> {{ t(`reason.${r}`) }}</v-list-item-title
              ></v-list-item
            >
            <v-list-item @click.stop
              ><input
                v-model="ownReason"
                class="field"
                :aria-label="t('own.label')"
                :placeholder="t('own.reason')"
                maxlength="200"
                @keydown.stop
                @keydown.enter="emit('drop', ownReason.trim())"
            /></v-list-item>
            <v-list-item @click="emit('drop', '')"
              ><v-list-item-title
                ><kbd>Enter</kbd> {{ t('panel.noReason') }}</v-list-item-title
              ></v-list-item
            >
          </v-list>
        </v-menu>
      </div>
      <!-- What comes later stands below: what is pressed must not move away. -->
      <template v-if="textual && chosen.length < 2">
        <StemBox
          v-if="stems.length && !edited && chosen.length < 2"
          v-model="truncated"
          v-model:out="out"
          :stems="stems"
          @records="
            reader.list(
              { kind: 'term', term: newTerm({ kind: 'text', text: $event, field: 'text' }) },
              $event,
            )
          "
        />
        <p v-if="item?.ways && !edited" class="ways small">
          <template v-for="w in item.ways" :key="w.how">
            <button
              v-if="w.how !== 'words' && pair"
              class="way"
              :class="{ on: (w.how === 'near') === near }"
              :aria-pressed="(w.how === 'near') === near"
              @click="near = w.how === 'near'"
            >
              {{ t(`stands.${w.how}`) }} <b>{{ n(w.records, 'whole') }}</b>
            </button>
            <span v-else class="way still"
              >{{ t(`stands.${w.how}`) }} <b>{{ n(w.records, 'whole') }}</b></span
            >
          </template>
        </p>
      </template>
      <p v-if="item?.entryOf" class="small absorbs">
        {{ t('tree.entryOf', { heading: item.entryOf }) }}
      </p>
      <p v-if="candidate.row.absorbs?.length" class="small absorbs">
        {{ t('panel.absorbs') }}
        <span class="mono">{{ candidate.row.absorbs.slice(0, 8).join(', ') }}</span>
      </p>
      <p v-if="item?.titleOnly !== undefined" class="small absorbs">
        {{ t('stands.titleOnly', { n: n(item.titleOnly, 'whole') }, item.titleOnly) }} ·
        {{ t('stands.keywords', { n: n(item.inKeywords ?? 0, 'whole') }) }}
      </p>
      <button v-if="textual" class="btn bare" :aria-expanded="alikeOn" @click="alike">
        {{ t('alike.button') }} <kbd>A</kbd>
      </button>
      <AlikeWords
        v-if="textual && alikeOn"
        :like="{ item: settled }"
        :title="t('alike.text', { item: settled })"
        @find="emit('find', $event)"
      />
      <InContext v-if="textual" :lines="item?.context" @open="records" />
    </template>
    <FoldedWritings
      v-if="candidate.facet === 'authors' || candidate.row.writings?.length"
      :candidate="candidate"
    />
    <router-link
      v-if="item && review.vocabulary && (item.facet === 'headings' || item.entryOf)"
      class="small"
      :to="{
        name: 'headings',
        params: { review: review.id },
        query: { label: item.entryOf ?? item.item },
      }"
      >{{ t('headings.look', { heading: item.entryOf ?? item.item }) }}</router-link
    >
    <template v-if="item?.scopeNote">
      <h3 class="small">{{ t('tree.scope') }}</h3>
      <p class="small">{{ item.scopeNote }}</p>
    </template>
    <template v-if="item?.entry?.length">
      <h3 class="small">{{ t('tree.entry') }}</h3>
      <p class="small">{{ item.entry.slice(0, 30).join(' · ') }}</p>
    </template>
    <template v-if="item?.beside?.length">
      <h3 class="small">
        {{ t(candidate.facet === 'headings' ? 'tree.qualifiers' : 'tree.behind') }}
      </h3>
      <p class="goes">
        <button v-for="b in item.beside" :key="b.item" class="chip" @click="beside(b.item)">
          {{ b.item }} <em>{{ n(b.records, 'whole') }}</em>
        </button>
      </p>
    </template>
    <template v-if="item?.with.length">
      <h3 class="small">{{ t(candidate.facet === 'headings' ? 'tree.words' : 'goes.title') }}</h3>
      <p class="goes">
        <button
          v-for="h in item.with"
          :key="h.item"
          class="chip"
          :title="t('goes.tip', { n: n(h.records, 'whole'), pull: n(h.pull, 'whole') })"
          @click="
            reader.list(
              {
                kind: 'item',
                facet: candidate.facet === 'headings' ? 'words' : 'headings',
                item: h.item,
              },
              h.item,
            )
          "
        >
          {{ h.item }} <em>{{ n(h.records, 'whole') }}</em>
        </button>
      </p>
    </template>
    <button class="btn bare more" @click="records()">
      {{ t('panel.records', { n: n(candidate.row.records, 'whole') }, candidate.row.records) }}
      <kbd>Enter</kbd>
    </button>
  </section>
</template>

<style scoped>
.panel {
  border-left: 1px solid var(--line);
  padding: 0 0 12px 14px;
  min-width: 0;
  height: 100%;
  overflow-y: auto;
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
}

h2 {
  font-size: 15px;
  font-weight: 700;
  overflow-wrap: anywhere;
  max-height: 4.2em;
  overflow-y: auto;
}

.link {
  text-decoration: underline;
  text-decoration-color: var(--sand);
  text-underline-offset: 2px;
}

.decided {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-top: 6px;
}

.decided .btn {
  margin-left: auto;
}

.field {
  margin-top: 8px;
}

.field.edited {
  background: var(--gold-soft);
}

.proposal,
.wrong,
.absorbs {
  margin-top: 4px;
}

.absorbs .mono {
  font-size: 12px;
}

.wrong {
  color: var(--miss);
}

.several {
  margin-top: 8px;
  padding: 7px 10px;
  background: var(--gold-soft);
  border-radius: var(--radius);
}

.missed {
  color: var(--miss);
}

.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-top: 7px;
}

.way {
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--white);
  padding: 1px 8px;
  cursor: pointer;
}

.way.on {
  border-color: var(--plum);
  box-shadow: inset 0 0 0 1px var(--plum);
}

.way.still {
  background: none;
  border-style: dashed;
  cursor: default;
}

h3 {
  margin: 13px 0 4px;
  text-transform: uppercase;
  letter-spacing: 0.06em;
  font-weight: 650;
}

.goes {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}

.goes .chip {
  font-size: 12px;
  padding: 1px 7px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 9px;
}

.more {
  margin-top: 6px;
}
</style>
