<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Block, type Suit } from '@/api/client'
import { useReader } from '@/parts/reader'
import { useFinds } from '@/parts/tried'
import { useBench } from '@/state/bench'
import { textual as isTextual, useDecide } from '@/state/decide'
import { newTerm, termText, useReview } from '@/state/review'
import AlikeWords from '@/parts/AlikeWords.vue'
import AboutItem from './AboutItem.vue'
import FoldedWritings from './FoldedWritings.vue'
import FormsList from './FormsList.vue'
import InContext from './InContext.vue'
import ItemNotes from './ItemNotes.vue'
import PanelActs from './PanelActs.vue'
import PanelHead from './PanelHead.vue'
import StemBox from './StemBox.vue'
import TermWays from './TermWays.vue'
import { useAsTerms } from './asTerms'
import { useItemDetail } from './itemDetail'
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
const { settled, item } = useItemDetail(() => props.candidate)
const {
  typed,
  ticked,
  truncated,
  out,
  near,
  edited,
  stems,
  judgedAt,
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

const acts = ref<InstanceType<typeof PanelActs>>()
const name = () => acts.value?.name()

defineExpose({ terms, truncate, alike, name })
</script>

<template>
  <section class="panel" :aria-label="t('panel.label', { item: candidate.item })">
    <PanelHead
      :candidate="candidate"
      :chosen="chosen"
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
      </template>
      <PanelActs
        ref="acts"
        :item="candidate.key"
        :target="target"
        :none="!!refused || !texts.length"
        :dropping="dropping"
        @add="emit('add', $event)"
        @begin="emit('begin', $event)"
        @park="emit('park')"
        @drop="emit('drop', $event)"
        @dropping="emit('dropping', $event)"
        @preview="preview"
      />
      <!-- What comes later stands below: what is pressed must not move away. -->
      <template v-if="textual && chosen.length < 2">
        <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
        <p v-else-if="edited && tried.data.value?.records !== undefined" class="proposal small">
          {{ finds(tried.data.value) }}
        </p>
        <StemBox
          v-if="stems.length && !edited"
          v-model="truncated"
          v-model:out="out"
          :stems="stems"
          :at="judgedAt"
          @records="
            reader.list(
              { kind: 'term', term: newTerm({ kind: 'text', text: $event, field: 'text' }) },
              $event,
            )
          "
        />
        <TermWays
          v-if="item?.ways && !edited"
          v-model:near="near"
          :ways="item.ways"
          :pair="!!pair"
        />
      </template>
      <ItemNotes :candidate="candidate" :item="item" :suit="suit" />
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
.wrong {
  margin-top: 4px;
}

.wrong {
  color: var(--miss);
}

.more {
  margin-top: 6px;
}
</style>
