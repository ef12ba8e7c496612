<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { figures, useFigure, useFresh } from '@/figures'
import { saveBlob } from '@/parts/files/blob'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import DialectForm from './DialectForm.vue'
import DialectTrial from './DialectTrial.vue'
import { printed } from './dialectForm'

/** How sources want queries typed: dialects are looked at, made from one another, tried as they are typed, and shared. */
const { t } = useI18n()
const notes = useNotes()
const problem = useProblem()
const fresh = useFresh()

const dialects = useFigure(figures.dialects, () => null)
const all = computed(() => dialects.data.value ?? [])
const name = useStorage('tamiz-dialect', 'almagre')
const chosen = computed(() => all.value.find((d) => d.name === name.value) ?? all.value[0])
/** What is being written: it stays when the page is left. */
const draft = useStorage('tamiz-dialect-draft', '')
const file = computed(() => draft.value || chosen.value?.body || '')
const asText = ref(false)
const body = computed<Record<string, unknown> | undefined>(() => {
  try {
    return JSON.parse(file.value) as Record<string, unknown>
  } catch {
    return undefined
  }
})
const fixed = computed(() => !draft.value && !chosen.value?.own)

const trial = useFigure(figures.dialectTried, () => ({ body: file.value }), {
  enabled: () => file.value !== '',
  keep: true,
  once: true,
})
const broken = computed(() =>
  trial.error.value ? problem(trial.error.value) : trial.data.value?.broken,
)

/** A name that no dialect has: letters, and a number where it is taken. */
function freeName(wanted: string) {
  for (let i = 2; ; i++) {
    const x = `${wanted}-${i}`
    if (!all.value.some((d) => d.name === x)) return x
  }
}
function make() {
  const d = chosen.value
  if (!d) return
  const from = JSON.parse(d.body) as Record<string, unknown>
  draft.value = printed({
    ...from,
    name: freeName(d.name),
    title: t('dialect.copyOf', { title: d.title }),
  })
}
function change(to: Record<string, unknown>) {
  draft.value = printed(to)
}

const wrong = ref('')
watch(file, () => (wrong.value = ''))
async function keep() {
  try {
    const kept = await ask(api.POST('/api/dialects', { body: { body: file.value } }))
    await fresh(figures.dialects)
    name.value = kept.name
    draft.value = ''
    notes.say({ text: t('dialect.kept', { title: kept.title }) })
  } catch (e) {
    wrong.value = problem(e)
  }
}
async function remove() {
  const d = chosen.value
  if (!d) return
  try {
    await ask(api.DELETE('/api/dialects/{dialect}', { params: { path: { dialect: d.name } } }))
    await fresh(figures.dialects)
    notes.say({
      text: t('dialect.removed', { title: d.title }),
      action: { label: t('dialect.putBack'), run: () => (draft.value = d.body) },
    })
  } catch (e) {
    wrong.value = problem(e)
  }
}
function save() {
  const name = String(body.value?.name ?? 'dialect')
  saveBlob(new Blob([file.value], { type: 'application/json' }), `${name}.json`)
}
const longestFile = 100_000
async function takeIn(e: Event) {
  const input = e.target as HTMLInputElement
  const taken = input.files?.[0]
  input.value = ''
  if (!taken) return
  if (taken.size > longestFile) wrong.value = t('dialect.tooLong', { name: taken.name })
  else draft.value = await taken.text()
}
</script>

<template>
  <div>
    <p class="small hint">{{ t('dialect.about') }}</p>
    <div class="row top">
      <select v-if="!draft" v-model="name" class="field which" :aria-label="t('dialect.which')">
        <option v-for="d in all" :key="d.name" :value="d.name">
          {{ d.title }}{{ d.own ? `, ${t('dialect.own')}` : '' }}
        </option>
      </select>
      <b v-else>{{ t('dialect.making', { name: String(body?.title ?? '') }) }}</b>
      <template v-if="draft">
        <button class="btn" :disabled="!!broken || trial.isFetching.value" @click="keep">
          {{ t('dialect.keep') }}
        </button>
        <button class="btn bare" @click="draft = ''">{{ t('dialect.leave') }}</button>
      </template>
      <template v-else>
        <button class="btn outline" @click="make">{{ t('dialect.make') }}</button>
        <button v-if="chosen?.own" class="btn bare" @click="remove">
          {{ t('dialect.remove') }}
        </button>
        <label class="btn outline file"
          >{{ t('dialect.takeIn')
          }}<input class="visually-hidden" type="file" accept=".json" @change="takeIn"
        /></label>
      </template>
      <span class="grow" />
      <label class="row small"
        ><input v-model="asText" type="checkbox" />{{ t('dialect.asText') }}</label
      >
      <button class="btn bare" @click="save">
        {{ t('dialect.save') }}
      </button>
    </div>
    <p v-if="wrong || broken" class="wrong" role="alert">{{ wrong || broken }}</p>
    <div class="both">
      <textarea
        v-if="asText || !body"
        class="field mono text"
        :value="file"
        :readonly="fixed"
        :aria-label="t('dialect.file')"
        rows="30"
        @input="draft = ($event.target as HTMLTextAreaElement).value"
      />
      <DialectForm v-else :body="body" :fixed="fixed" @change="change" />
      <DialectTrial v-if="trial.data.value" :trial="trial.data.value" :class="{ old: broken }" />
    </div>
  </div>
</template>

<style scoped>
.hint {
  margin-bottom: 8px;
}

.top {
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 10px;
}

.which {
  width: auto;
}

.file:focus-within {
  outline: 2px solid var(--plum);
}

.both {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: 18px;
  align-items: start;
}

.text {
  width: 100%;
  box-sizing: border-box;
  font-size: 12.5px;
}

.old {
  opacity: 0.75;
}

.wrong {
  color: var(--miss);
  margin-bottom: 8px;
}

@media (max-width: 1000px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
