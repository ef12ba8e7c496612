<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Block, type Suit } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useReader } from '@/parts/reader'
import { useFinds } from '@/parts/tried'
import { useBench } from '@/state/bench'
import { textual as isTextual, useDecide } from '@/state/decide'
import { newTerm, termText, useReview } from '@/state/review'
import AlikeWords from '@/parts/AlikeWords.vue'
import AboutItem from './AboutItem.vue'
import DropMenu from './DropMenu.vue'
import FoldedWritings from './FoldedWritings.vue'
import FormsList from './FormsList.vue'
import InContext from './InContext.vue'
import NewConcept from './NewConcept.vue'
import PanelHead from './PanelHead.vue'
import StemBox from './StemBox.vue'
import { useAsTerms } from './asTerms'
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

const { t, n } = useI18n()
const review = useReview()
const bench = useBench()
const reader = useReader()
const finds = useFinds()
const { addEdits } = useDecide()

const alikeOn = ref(false)
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
const {
  typed,
  ticked,
  truncated,
  out,
  near,
  edited,
  stems,
  tried,
  refused,
  texts,
  pair,
  terms,
  truncate,
  stamp,
} = useAsTerms(
  computed(() => props.candidate),
  item,
)

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
    stamp.value,
    review.revision,
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

onBeforeUnmount(() => bench.rest(undefined))

const concept = ref<InstanceType<typeof NewConcept>>()
const name = () => concept.value?.open()

defineExpose({ terms, truncate, alike, name })
</script>

<template>
  <section class="panel" :aria-label="t('panel.label', { item: candidate.item })">
    <PanelHead
      :candidate="candidate"
      :chosen="chosen"
      :suit="suit"
      @records="records()"
      @alone="emit('alone')"
      @back="emit('back')"
    />
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
        <DropMenu
          :model-value="dropping"
          :of="candidate.key"
          @update:model-value="emit('dropping', $event)"
          @drop="emit('drop', $event)"
        />
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
    <AboutItem :candidate="candidate" :item="item" />
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
