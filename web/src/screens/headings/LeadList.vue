<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Headings, RecordSet } from '@/api/client'
import { newTerm, useReview } from '@/state/review'
import CarriedNote from './CarriedNote.vue'
import LeadText from './LeadText.vue'
import ProposedHeadings from './ProposedHeadings.vue'
import { useThrough } from './through'

/** The headings that words lead to, with how, and those that the records carry which say them. */
const props = defineProps<{
  found?: Headings
  pending: boolean
  words: string[]
  seeds?: string
  selected: string
  keys: string[][]
}>()
const emit = defineEmits<{ look: [label: string]; into: [] }>()
const { t, n } = useI18n()
const through = useThrough()
const review = useReview()
const root = ref<HTMLElement>()

const labels = computed(() => [
  ...(props.found?.leads.map((l) => l.label) ?? []),
  ...(props.found?.evidence.filter((e) => e.known).map((e) => e.label) ?? []),
])
/** A heading may be led to and carried too: the one that was moved to is the one in view. */
const at = ref(0)
const here = computed(() =>
  labels.value[at.value] === props.selected ? at.value : labels.value.indexOf(props.selected),
)

function move(by: number) {
  const to = Math.max(0, Math.min(labels.value.length - 1, here.value + by))
  if (labels.value[to] === undefined) return
  at.value = to
  emit('look', labels.value[to])
  root.value?.querySelectorAll('[role=option]')[to]?.scrollIntoView({ block: 'nearest' })
}
function onKey(e: KeyboardEvent) {
  const by = { ArrowDown: 1, ArrowUp: -1, Home: -1e6, End: 1e6 }[e.key]
  if (by) {
    e.preventDefault()
    move(by)
  } else if (e.key === 'ArrowRight' || e.key === 'Enter') {
    e.preventDefault()
    emit('into')
  }
}
function take(i: number) {
  at.value = i
  emit('look', labels.value[i])
  root.value?.focus()
}
const known = computed(() => props.found?.evidence.filter((e) => e.known) ?? [])

const termOf = (label: string): RecordSet => ({
  kind: 'term',
  term: newTerm({ kind: 'heading', heading: label, id: 'looked' }),
})
/** The records that say one of the words, as they are said: of several, those of the first. */
const saying = computed<RecordSet>(() => ({
  kind: 'term',
  term: newTerm({
    kind: 'text',
    text: props.found?.said[0] ?? '',
    field: 'text',
    id: 'said',
  }),
}))
/** Of them those that carry no heading. */
const bare = computed<RecordSet>(() => ({
  kind: 'within',
  of: { kind: 'aspect', facet: 'headings', aspect: 'missing' },
  in: saying.value,
}))
function carriers(label: string, title: string) {
  through.list({ kind: 'within', of: termOf(label), in: saying.value }, title)
}
function focus() {
  root.value?.focus()
  if (here.value < 0) move(0)
}
defineExpose({ focus })
</script>

<template>
  <div class="card leads">
    <p v-if="!words.length && through.other" class="small hint">
      {{ t('through.type', { vocabulary: through.other.name }) }}
    </p>
    <ProposedHeadings v-else-if="!words.length" :selected="selected" @look="emit('look', $event)" />
    <v-progress-linear
      v-else-if="pending"
      indeterminate
      color="primary"
      :aria-label="t('headings.leads')"
    />
    <p v-if="seeds && words.length" class="small start">
      {{ t('headings.seedsOf', { block: seeds, words: words.join(', ') }) }}
    </p>
    <p v-if="found && words.length && !found.leads.length" class="small start">
      {{ t('headings.none') }}
    </p>
    <div
      v-if="labels.length"
      ref="root"
      role="listbox"
      tabindex="0"
      :aria-label="t('headings.leads')"
      :aria-activedescendant="here >= 0 ? `lead-${here}` : undefined"
      @keydown="onKey"
    >
      <div
        v-for="(l, i) in found!.leads"
        :id="`lead-${i}`"
        :key="l.label"
        role="option"
        class="hit"
        :class="{ sel: i === here }"
        :aria-selected="i === here"
        @click="take(i)"
      >
        <LeadText :lead="l" :of="words.length" />
      </div>
      <template v-if="known.length">
        <div class="sect carried" role="presentation">{{ t('headings.carried') }}</div>
        <div
          v-for="(e, i) in known"
          :id="`lead-${found!.leads.length + i}`"
          :key="e.label"
          role="option"
          class="evidence"
          :class="{ sel: found!.leads.length + i === here }"
          :aria-selected="found!.leads.length + i === here"
          :title="
            t('headings.pull', { pull: n(e.pull, 'whole'), n: n(e.records, 'whole') }, e.records)
          "
          @click="take(found!.leads.length + i)"
        >
          <span class="cut">{{ e.label }}</span><span class="small">{{ n(e.share, 'share') }}</span>
        </div>
      </template>
    </div>
    <p v-if="found?.cut" class="small start">{{ t('headings.cut') }}</p>
    <template v-if="found && words.length && (found.saying || found.without)">
      <ul v-if="found.evidence.some((e) => !e.known)" class="others">
        <li v-for="e in found.evidence.filter((x) => !x.known)" :key="e.label" class="evidence">
          <button class="link cut" @click="carriers(e.label, e.label)">{{ e.label }}</button><span
            class="small"
            >{{ n(e.share, 'share') }}</span
          >
        </li>
      </ul>
      <CarriedNote :found="found" :saying="saying" :bare="bare" />
    </template>
    <p v-else-if="found && words.length && review.sample === undefined" class="small start">
      {{ t('headings.noSample') }}
    </p>
    <span class="grow" />
    <p class="small keys">
      <span v-for="k in keys" :key="k[0]"
        ><kbd>{{ k[0] }}</kbd> {{ k[1] }}</span
      >
    </p>
  </div>
</template>

<style scoped>
.hint {
  padding: 8px 10px;
}

.leads {
  overflow-y: auto;
  min-height: 0;
  display: flex;
  flex-direction: column;
}

.hit {
  display: grid;
  gap: 1px;
  padding: 7px 10px;
  border-bottom: 1px solid var(--line-soft);
  cursor: pointer;
}

.hit.sel,
.evidence.sel {
  background: var(--gold-soft);
}

.carried {
  padding: 9px 10px 4px;
}

.evidence {
  display: flex;
  gap: 8px;
  padding: 3.5px 10px;
  cursor: pointer;
}

.evidence .cut {
  flex: 1;
  text-align: left;
}

.start {
  padding: 8px 10px;
}

.keys {
  padding: 8px 10px;
  border-top: 1px solid var(--line-soft);
  display: grid;
  gap: 3px;
}

[role='listbox']:focus-visible {
  outline-offset: -2px;
}
</style>
