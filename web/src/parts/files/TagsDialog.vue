<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type FileQuestion, type Import, type ReaderMap, type TagMap } from '@/api/client'
import { figures, useFigure, useFresh } from '@/figures'
import { useImports } from '@/state/imports'
import { useProblem } from '@/state/problem'
import { manyOf } from './fields'
import FirstRecords from './FirstRecords.vue'
import { usePreview } from './preview'
import TagForm from './TagForm.vue'
import { rowsOf, type TagRow } from './tagRows'
import { saveBlob } from './blob'

/** How a tagged text is read: what a marked line looks like, where records begin and end, what each tag is. */
const props = defineProps<{ file: Import; asked: FileQuestion }>()
const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const imports = useImports()
const problem = useProblem()
const fresh = useFresh()

const copy = (m: TagMap) => JSON.parse(JSON.stringify(m)) as TagMap

const start = copy(props.asked.settings.map!)
const map = ref(start)
const rows = ref<TagRow[]>(rowsOf(start))
const remember = ref(true)
const failed = ref('')

/** The map that the form says: tags of one field together, in their order. */
const said = computed<TagMap>(() => {
  const fields: TagMap['fields'] = []
  for (const r of rows.value.filter((x) => x.tag.trim())) {
    const same =
      r.field && r.field !== 'extra' ? fields.find((f) => f.field === r.field) : undefined
    if (same) same.tags.push(r.tag)
    else
      fields.push({
        field: r.field,
        tags: [r.tag],
        ...(manyOf(r.field) ? { take: 'all', split: r.split } : {}),
      })
  }
  return { ...map.value, name: map.value.name.trim(), fields }
})
const { preview, looking } = usePreview(
  props.file.id,
  computed(() => ({ map: said.value })),
)

const kept = useFigure(figures.readers, () => null)

function use(m: TagMap) {
  map.value = copy(m)
  rows.value = rowsOf(map.value)
}

function useKept(id: number) {
  const found = kept.data.value?.find((k: ReaderMap) => k.id === id)
  if (found) use(found.map)
}

async function forget() {
  const found = kept.data.value?.find((k: ReaderMap) => k.map.name === map.value.name)
  if (!found) return
  await ask(api.DELETE('/api/readers/{reader}', { params: { path: { reader: found.id } } }))
  await fresh(figures.readers)
}
const isKept = computed(
  () => kept.data.value?.some((k: ReaderMap) => k.map.name === map.value.name) ?? false,
)

const picker = ref<HTMLInputElement>()
async function take() {
  const file = picker.value?.files?.[0]
  if (!file) return
  try {
    const m = JSON.parse(await file.text()) as TagMap
    if (m.tamiz !== 'reader-map/1' || !Array.isArray(m.fields)) throw new Error()
    use(m)
    failed.value = ''
  } catch {
    failed.value = t('tags.notMap')
  }
  picker.value!.value = ''
}

function save() {
  saveBlob(
    new Blob([JSON.stringify(said.value, undefined, 2)], { type: 'application/json' }),
    `${map.value.name || 'reader map'}.json`,
  )
}

async function go() {
  try {
    await imports.answer(props.file, {
      map: said.value,
      remember: remember.value && !!said.value.name,
    })
    await fresh(figures.readers)
    emit('close')
  } catch (error) {
    failed.value = problem(error)
  }
}
</script>

<template>
  <v-dialog
    :model-value="true"
    :max-width="1180"
    :aria-label="t('tags.title', { name: file.name })"
    @update:model-value="emit('close')"
  >
    <v-card class="sheet tall">
      <div class="row">
        <h2 class="display cut">{{ t('tags.title', { name: file.name }) }}</h2>
        <span class="grow" />
        <label v-if="kept.data.value?.length" class="small" for="kept-map">{{
          t('tags.kept')
        }}</label>
        <select
          v-if="kept.data.value?.length"
          id="kept-map"
          class="chip"
          @change="useKept(Number(($event.target as HTMLSelectElement).value))"
        >
          <option value="">{{ t('tags.choose') }}</option>
          <option v-for="k in kept.data.value" :key="k.id" :value="k.id">{{ k.map.name }}</option>
        </select>
        <button class="btn bare" @click="picker?.click()">{{ t('tags.take') }}</button>
        <input
          ref="picker"
          type="file"
          accept=".json,application/json"
          :aria-label="t('tags.take')"
          hidden
          @change="take"
        />
      </div>
      <p class="small">{{ t('tags.text') }}</p>
      <div class="three">
        <pre class="wire mono" tabindex="0" role="region" :aria-label="t('tags.file')">{{
          asked.head
        }}</pre>
        <TagForm v-model:map="map" v-model:rows="rows" />
        <FirstRecords :preview="preview" :looking="looking" />
      </div>
      <p v-if="failed" class="wrong" role="alert">{{ failed }}</p>
      <div class="row foot">
        <label class="small" for="map-name">{{ t('tags.name') }}</label>
        <input id="map-name" v-model="map.name" class="field name" maxlength="200" />
        <label class="small"
          ><input v-model="remember" type="checkbox" :disabled="!map.name.trim()" />
          {{ t('tags.remember') }}</label
        >
        <button class="btn bare" @click="save">{{ t('tags.save') }}</button>
        <button v-if="isKept" class="btn bare" @click="forget">
          {{ t('tags.drop', { name: map.name }) }}
        </button>
        <span class="grow" />
        <button class="btn outline" @click="emit('close')">{{ t('reader.close') }}</button>
        <button class="btn" :disabled="!preview || !!preview.problem" @click="go">
          {{ t('columns.read') }}
        </button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.three {
  display: grid;
  grid-template-columns: minmax(0, 0.85fr) minmax(0, 1.25fr) minmax(0, 0.95fr);
  gap: 16px;
  min-height: 0;
  flex: 1;
  margin-top: 8px;
}

.three pre.wire {
  max-height: none;
  margin: 0;
  white-space: pre;
  overflow: auto;
}

.foot {
  margin-top: 12px;
  flex-wrap: wrap;
}

.name {
  width: 170px;
}

@media (max-width: 1000px) {
  .three {
    display: block;
    overflow-y: auto;
  }

  .three pre.wire {
    max-height: 160px;
  }
}
</style>
