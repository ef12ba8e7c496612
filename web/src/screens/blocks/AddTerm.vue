<script setup lang="ts">
import { refDebounced, useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Block } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useFinds, useRefusal } from '@/parts/tried'
import { useBench } from '@/state/bench'
import { useDecide } from '@/state/decide'
import { useNotes } from '@/state/notes'
import { newTerm, useReview } from '@/state/review'
import PasteTerms from './PasteTerms.vue'
import { termsOf } from './pasted'
import IndexNeighbours from './IndexNeighbours.vue'
import LeadChips from './LeadChips.vue'

/** Type to add: a word, a phrase, a stem*, left ~3 right, or a heading; what it finds shows as it is typed. */
const props = defineProps<{ block: Block }>()

const { t } = useI18n()
const review = useReview()
const bench = useBench()
const said = useRefusal()
const finds = useFinds()
const notes = useNotes()
const { add, addEdits } = useDecide()

const typed = ref('')
const field = ref('text')
const input = ref<HTMLInputElement>()
const settled = refDebounced(typed, 120)
const fields = ['text', 'title', 'abstract', 'titleAbstract', 'keyword', 'any']

const ask_ = (text: string, where: string) =>
  ask(
    api.POST('/api/reviews/{review}/terms', {
      params: review.asked,
      body: { typed: text, field: where },
    }),
  )
const tried = useFigure(figures.term, () => ({ typed: settled.value, field: field.value }), {
  enabled: () => settled.value.trim() !== '',
})
const found = computed(() =>
  typed.value.trim() && typed.value === settled.value ? tried.data.value : undefined,
)
const refusedNow = ref('')
const refused = computed(
  () => refusedNow.value || (found.value?.refused ? said(found.value.refused) : ''),
)
watch(typed, () => (refusedNow.value = ''))

/** A query in the place of a term: its parts are offered. */
const queryNow = ref<{ parts: string[]; joined: boolean }>()
const query = computed(() => queryNow.value ?? found.value?.query)
watch(typed, () => (queryNow.value = undefined))
function takeParts(parts: string[]) {
  add(
    props.block,
    parts.map((text) => newTerm({ kind: 'text', text, field: field.value as 'text' })),
  )
  const left = query.value?.parts.filter((p) => !parts.includes(p)) ?? []
  if (!left.length) typed.value = ''
  else queryNow.value = { parts: left, joined: query.value?.joined ?? false }
}

/** Several lines are a list: each is looked at before it is taken. */
const pasted = ref<string[]>()
function paste(e: ClipboardEvent) {
  const lines = termsOf(e.clipboardData?.getData('text') ?? '')
  if (lines.length < 2) return
  e.preventDefault()
  pasted.value = [...new Set(lines)]
}

watch([found, () => props.block.id, () => review.revision], () => {
  const term = found.value?.term
  const edits = term
    ? addEdits(props.block, newTerm({ ...term, kind: term.kind, id: 'typed', on: true }))
    : []
  bench.rest(
    edits.length ? { edits, label: `+ ${typed.value.trim()}`, block: props.block.id } : undefined,
  )
})

/** What was typed before and is still asked about: lines stand in the order in which they were typed. */
let before = Promise.resolve()
function enter() {
  const then = before
  before = take(then).catch(() => undefined)
}

/** Adds what is typed. It may have been typed faster than it could be looked up, so it is asked once more. */
async function take(then: Promise<void>) {
  const text = typed.value.trim()
  if (!text) return
  const known = found.value
  typed.value = '' // the next may be typed while this is still asked about
  const where = field.value
  const answer = known ?? (await ask_(text, where).catch(() => undefined))
  await then
  if (answer?.refused) {
    // Where the next is being typed already, what was refused is said beside it, not put in its way.
    if (typed.value.trim()) return notes.say({ text: `${text}: ${said(answer.refused)}` })
    typed.value = text
    await nextTick()
    refusedNow.value = said(answer.refused)
    queryNow.value = answer.query
    return
  }
  // What cannot be asked now is kept as it stands, and checked when it is saved.
  const { kind, ...rest } = answer?.term ?? { kind: 'text' as const, text, field: where }
  add(props.block, newTerm({ ...rest, kind, id: crypto.randomUUID(), on: true }))
  bench.rest(undefined)
  input.value?.focus()
}

function takeHeading(heading: string, narrower = false) {
  add(props.block, newTerm({ kind: 'heading', heading, ...(narrower ? { narrower } : {}) }))
  typed.value = ''
  input.value?.focus()
}

useEventListener('keydown', (e: KeyboardEvent) => {
  if (
    e.key.toLowerCase() !== 'n' ||
    e.ctrlKey ||
    e.metaKey ||
    e.altKey ||
    (e.target as HTMLElement).matches('input, textarea, select')
  )
    return
  e.preventDefault()
  input.value?.focus()
})
</script>

<template>
  <form class="add" @submit.prevent="enter">
    <label class="visually-hidden" for="add-term">{{
      t('addTerm.label', { block: block.name })
    }}</label>
    <span class="typing"
      ><input
        id="add-term"
        ref="input"
        v-model="typed"
        class="field mono"
        :placeholder="t('addTerm.hint')"
        autocomplete="off"
        spellcheck="false"
        :aria-invalid="!!refused"
        aria-describedby="add-said"
        @paste="paste"
      /><kbd v-if="!typed">N</kbd></span
    >
    <label class="visually-hidden" for="add-field">{{ t('addTerm.where') }}</label>
    <select id="add-field" v-model="field" class="chip">
      <option v-for="f in fields" :key="f" :value="f">{{ t(`field.${f}`) }}</option>
    </select>
    <button class="btn" :disabled="!typed.trim()">
      {{ t('act.addTo', { block: block.name }) }}
    </button>
  </form>
  <div id="add-said" class="said" aria-live="polite">
    <p v-if="refused" class="wrong">{{ refused }}</p>
    <p v-else-if="found?.term" class="small">{{ finds(found) }}</p>
    <p v-else class="small">{{ t('addTerm.forms') }}</p>
  </div>
  <PasteTerms
    v-if="pasted"
    :block="block"
    :typed="pasted"
    :field="field"
    @close="pasted = undefined"
  />
  <div v-if="query" class="parts">
    <span class="small">{{ t(query.joined ? 'addTerm.partsJoined' : 'addTerm.parts') }}</span>
    <button
      v-for="p in query.parts"
      :key="p"
      class="chip mono"
      :aria-label="t('addTerm.addPart', { term: p, block: block.name })"
      @click="takeParts([p])"
    >
      {{ p }}
    </button>
    <button
      v-if="query.parts.length > 1 && !query.joined"
      class="btn outline"
      @click="takeParts(query.parts)"
    >
      {{ t('addTerm.addAll', { n: query.parts.length }) }}
    </button>
  </div>
  <IndexNeighbours v-else :block="block" :word="settled" @added="((typed = ''), input?.focus())" />
  <LeadChips v-if="found?.headings.length" :headings="found.headings" @take="takeHeading" />
</template>

<style scoped>
.add {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 10px;
}

.typing {
  flex: 1;
  position: relative;
}

.typing kbd {
  position: absolute;
  right: 10px;
  top: 7px;
}

select.chip {
  font: 12.5px var(--ui);
  color: var(--ink);
}

.parts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin-top: 4px;
}

.said {
  min-height: 22px;
  margin-top: 4px;
}

.wrong {
  color: var(--miss);
}
</style>
