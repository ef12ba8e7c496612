<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type FileFormat } from '@/api/client'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { fieldChoices } from './fields'
import { useSaving } from './saving'

/** In which format, with which fields and under which name records are saved. */
const { t, n } = useI18n()
const review = useReview()
const saving = useSaving()
const problem = useProblem()

const formats: FileFormat[] = ['ris', 'bibtex', 'csl', 'csv', 'tsv', 'mods', 'html']
const fields = fieldChoices.filter((f) => f !== '' && f !== 'pages')
const format = useStorage<FileFormat>('tamiz-save-format', 'ris')
const chosen = ref<string[]>([...fields])
const name = ref('')
watch(
  () => saving.open,
  (open) => open && (name.value = saving.name),
)

const all = computed(() => chosen.value.length === fields.length)
/** Whether cells that a spreadsheet would take for formulas are marked. */
const mark = useStorage('tamiz-save-mark', true)
const table = computed(() => format.value === 'csv' || format.value === 'tsv')
const failed = ref('')
const fetching = ref(false)

/** The name that the program gave to a file. */
function nameIn(disposition: string | null): string {
  const encoded = /filename\*=utf-8''([^;]+)/i.exec(disposition ?? '')?.[1]
  return encoded
    ? decodeURIComponent(encoded)
    : (/filename="?([^";]+)/.exec(disposition ?? '')?.[1] ?? '')
}

async function go() {
  failed.value = ''
  fetching.value = true
  // A window that is opened later than the click would be taken for an advertisement.
  const page = format.value === 'html' ? window.open('', '_blank') : undefined
  const called = name.value.trim() || saving.name || 'records'
  try {
    const answer = api.POST('/api/reviews/{review}/export', {
      params: review.asked,
      body: {
        of: saving.set,
        format: format.value,
        fields: all.value ? undefined : chosen.value,
        asIs: table.value && !mark.value ? true : undefined,
        name: called.slice(0, 300),
      },
      parseAs: 'blob',
    })
    const file = (await ask(answer)) as Blob
    const url = URL.createObjectURL(file)
    if (page) page.location.href = url
    else {
      const link = document.createElement('a')
      link.href = url
      link.download = nameIn((await answer).response.headers.get('content-disposition')) || called
      link.click()
    }
    setTimeout(() => URL.revokeObjectURL(url), 60_000)
    saving.open = false
  } catch (error) {
    page?.close()
    failed.value = problem(error)
  } finally {
    fetching.value = false
  }
}
</script>

<template>
  <v-dialog v-model="saving.open" :max-width="740" :aria-label="t('save.titleAny')">
    <v-card class="sheet">
      <h2 class="display">
        {{
          saving.count === undefined
            ? t('save.titleAny')
            : t('save.title', { n: n(saving.count, 'whole') }, saving.count)
        }}
      </h2>
      <fieldset>
        <legend class="sect">{{ t('save.format') }}</legend>
        <div class="formats">
          <label v-for="f in formats" :key="f" class="format" :class="{ on: format === f }"
            ><input v-model="format" type="radio" name="save-format" :value="f" /><b>{{
              t(`format.${f}`)
            }}</b
            ><span class="small">{{ t(`formatFor.${f}`) }}</span></label
          >
        </div>
      </fieldset>
      <fieldset>
        <legend class="sect">{{ t('save.fields') }}</legend>
        <p class="row small">
          <span>{{ t('save.some', { n: chosen.length, of: fields.length }) }}</span>
          <button class="link small" type="button" :disabled="all" @click="chosen = [...fields]">
            {{ t('save.all') }}
          </button>
          <button class="link small" type="button" :disabled="!chosen.length" @click="chosen = []">
            {{ t('save.none') }}
          </button>
        </p>
        <div class="fields">
          <label v-for="f in fields" :key="f"
            ><input v-model="chosen" type="checkbox" :value="f" />
            {{ f === 'extra' ? t('save.extra') : t(`recordField.${f}`) }}</label
          >
        </div>
      </fieldset>
      <label class="sect" for="save-name">{{ t('save.name') }}</label>
      <input id="save-name" v-model="name" class="field" maxlength="200" @keydown.enter="go" />
      <p class="small hint">{{ t('save.hint') }}</p>
      <label v-if="table" class="small mark"
        ><input v-model="mark" type="checkbox" /> {{ t('save.mark') }}</label
      >
      <p v-if="failed" class="wrong" role="alert">{{ failed }}</p>
      <div class="row foot">
        <span class="grow" />
        <button class="btn outline" @click="saving.open = false">{{ t('reader.close') }}</button>
        <button class="btn" :disabled="!chosen.length || fetching" @click="go">
          {{ fetching ? t('save.fetching') : format === 'html' ? t('save.page') : t('save.go') }}
        </button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 12px 0 14px;
}

.formats {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(160px, 1fr));
  gap: 6px;
  margin-top: 6px;
}

.format {
  display: grid;
  grid-template-columns: auto 1fr;
  align-content: start;
  column-gap: 7px;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 6px 9px;
  cursor: pointer;
}

.format .small {
  grid-column: 2;
}

.format.on {
  border-color: var(--plum);
  background: var(--plum-soft);
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 2px 8px;
  margin-top: 4px;
}

.mark {
  display: flex;
  gap: 6px;
  align-items: baseline;
  margin-top: 8px;
}

.hint {
  margin-top: 6px;
}

.fields label {
  display: flex;
  gap: 6px;
  align-items: baseline;
}

.link.small {
  color: var(--plum);
}

.link.small:disabled {
  color: var(--ink-2);
  cursor: default;
  text-decoration: none;
}

.foot {
  margin-top: 14px;
}
</style>
