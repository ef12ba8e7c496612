<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, Edit, HeadingWhole } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import DropMenu from '@/parts/DropMenu.vue'
import { itemOf } from '@/state/decide'
import { useReview } from '@/state/review'
import AroundIt from './AroundIt.vue'
import type { useChoice } from './choice'
import EntryTerms from './EntryTerms.vue'
import HeadingHistory from './HeadingHistory.vue'
import NoteText from './NoteText.vue'
import SidesOf from './SidesOf.vue'
import StandsFor from './StandsFor.vue'
import TakeIt from './TakeIt.vue'
import TreePlaces from './TreePlaces.vue'
import { useThrough } from './through'

/** One heading, whole: what it means, where it stands, by which words authors write of it, and how it is taken. */
const props = defineProps<{
  whole: HeadingWhole
  block?: Block
  taking: ReturnType<typeof useChoice>
  edits: Edit[]
  language: string
}>()
const emit = defineEmits<{
  look: [label: string]
  lookIn: [vocabulary: number, label: string]
  out: []
  take: []
  park: []
  block: [id: string]
}>()
const { t, n } = useI18n()
const review = useReview()
const through = useThrough()
const tree = ref<InstanceType<typeof TreePlaces>>()
const choice = computed(() => props.taking.choice)

const words = computed(
  () => props.edits.filter((e) => e.op === 'addTerm' && e.term?.kind === 'text').length,
)
/** What the button that acts says: what would change. */
const says = computed(() => {
  const block = props.block?.name ?? ''
  if (through.other && !props.edits.length) return t('headings.takeWords', { n: 0, block }, 0)
  if (!props.edits.length) return t('headings.there', { block })
  if (props.edits.some((e) => e.op === 'patchTerm')) return t('headings.change', { block })
  const heading = props.edits.some((e) => e.op === 'addTerm' && e.term?.kind === 'heading')
  return heading
    ? t('headings.take', { n: words.value, block }, words.value)
    : t('headings.takeWords', { n: words.value, block }, words.value)
})

defineExpose({ focus: () => tree.value?.focus() })
</script>

<template>
  <article class="panel" :aria-label="whole.heading">
    <div class="row title">
      <h2 class="display">{{ whole.shown }}</h2>
      <span v-if="whole.shown !== whole.heading" class="small">{{ whole.heading }}</span>
      <span v-for="at in whole.taken" :key="at.term" class="small row"
        ><BlockStamp :block="at.block" :size="16" />{{
          t('headings.takenIn', {
            block: review.document.blocks.find((b) => b.id === at.block)?.concept ?? '',
          })
        }}</span
      >
      <span v-if="whole.notation" class="small mono">{{ whole.notation }}</span>
    </div>
    <NoteText
      v-if="whole.scopeNote"
      :text="whole.scopeNote"
      :named="whole.named"
      @look="emit('look', $event)"
    />
    <p v-if="through.other" class="small">
      {{
        whole.over
          ? t('through.over', { sample: whole.over.name, n: n(whole.over.records, 'whole') })
          : t('through.nothing')
      }}
    </p>
    <HeadingHistory
      v-model="choice.older"
      :whole="whole"
      :block="block"
      @look="emit('look', $event)"
    />
    <p v-if="whole.labels.length" class="small">
      {{
        t('headings.labels', {
          labels: whole.labels.map((l) => `${l.value} (${l.language})`).join(', '),
        })
      }}
    </p>
    <TreePlaces
      ref="tree"
      v-model:how="choice.how"
      v-model:without="choice.without"
      :whole="whole"
      :language="language"
      @look="emit('look', $event)"
      @out="emit('out')"
    />
    <p v-if="whole.records && whole.unindexed" class="small">
      {{ t('headings.unindexed', { share: n(whole.unindexed / whole.records, 'share') }) }}
    </p>
    <div class="two">
      <EntryTerms v-model="choice.words" :whole="whole" :block="block" />
      <StandsFor v-if="through.other" :whole="whole" />
      <TakeIt
        v-else
        v-model:how="choice.how"
        v-model:central="choice.central"
        v-model:qualifiers="choice.qualifiers"
        :whole="whole"
        :without="choice.without"
      />
    </div>
    <SidesOf v-if="whole.sides && block" :whole="whole" :block="block" />
    <AroundIt
      v-model:words="choice.extra"
      :whole="whole"
      @look="emit('look', $event)"
      @look-in="(vocabulary, label) => emit('lookIn', vocabulary, label)"
    />
    <div class="row act">
      <label v-if="review.document.blocks.length > 1" class="row small">
        {{ t('headings.into') }}
        <select
          class="field into"
          :value="block?.id"
          @change="emit('block', ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="b in review.document.blocks" :key="b.id" :value="b.id">
            {{ b.name }} · {{ b.concept || t('block.unnamed') }}
          </option>
        </select>
      </label>
      <button v-if="block" class="btn" :disabled="!edits.length" @click="emit('take')">
        {{ says }}
      </button>
      <p v-else class="small">{{ t('headings.noBlock') }}</p>
      <button v-if="!through.other" class="btn outline" @click="emit('park')">
        {{ t('headings.park') }}
      </button>
      <DropMenu
        v-if="!through.other"
        :item="itemOf({ kind: 'heading', item: whole.heading })"
        :said="t('act.drop')"
      />
    </div>
  </article>
</template>

<style scoped>
.panel {
  min-width: 0;
  min-height: 0;
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  gap: 5px;
  padding-right: 4px;
}

.title {
  align-items: baseline;
  flex-wrap: wrap;
}

h2 {
  font-size: 20px;
  font-weight: 600;
  line-height: 1.2;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 236px;
  gap: 18px;
  margin-top: 6px;
}

.panel > * {
  flex: none;
}

.act {
  position: sticky;
  bottom: 0;
  background: var(--paper);
  border-top: 1px solid var(--line);
  padding: 9px 0;
  margin-top: auto;
  flex-wrap: wrap;
}

.into {
  width: auto;
  max-width: 190px;
  padding-block: 4px;
}

@container headings (max-width: 760px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
