<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Source, SourceMap } from '@/api/client'

/** Which of a source's indexes stands for which of our fields, and what else it can do: shown, and changed. */
const props = defineProps<{ source: Source }>()
const emit = defineEmits<{ save: [map: SourceMap] }>()
const { t } = useI18n()

const fields = [
  'text',
  'title',
  'abstract',
  'titleAbstract',
  'keyword',
  'heading',
  'any',
  'author',
  'journal',
  'year',
  'type',
  'language',
  'country',
  'identifier',
  'cites',
  'citedBy',
  'timesCited',
] as const
const features = [
  'near',
  'ends',
  'inside',
  'narrower',
  'central',
  'qualify',
  'sort',
  'scan',
] as const
const copy = (): SourceMap => ({ ...props.source.map, indexes: { ...props.source.map.indexes } })
const map = ref(copy())
watch(
  () => props.source,
  () => (map.value = copy()),
)
const changed = computed(() => JSON.stringify(map.value) !== JSON.stringify(props.source.map))
const indexes = computed(() => [
  ...new Set([
    ...props.source.described.indexes.map((x) => x.name),
    ...Object.values(props.source.map.indexes),
  ]),
])

function set(field: string, index: string) {
  if (index) map.value.indexes[field] = index
  else delete map.value.indexes[field]
}
</script>

<template>
  <section :aria-label="t('sources.map')">
    <div class="row">
      <h3 class="sect">{{ t('sources.map') }}</h3>
      <span class="small">{{ t('sources.mapText') }}</span><span class="grow" /><button
        class="btn"
        :disabled="!changed"
        @click="emit('save', map)"
      >
        {{ t('sources.save') }}
      </button>
    </div>
    <div class="grid">
      <template v-for="f in fields" :key="f">
        <label :for="`map-${f}`">{{ t(`sources.fieldName.${f}`) }}</label>
        <select
          :id="`map-${f}`"
          class="chip mono"
          :value="map.indexes[f] ?? ''"
          @change="set(f, ($event.target as HTMLSelectElement).value)"
        >
          <option value="">{{ t('sources.none') }}</option>
          <option v-for="x in indexes" :key="x" :value="x">{{ x }}</option>
        </select>
      </template>
      <label for="map-schema">{{ t('sources.schema') }}</label>
      <select id="map-schema" v-model="map.schema" class="chip mono">
        <option v-for="x in source.described.schemas" :key="x.name" :value="x.name || x.identifier">
          {{ x.title || x.name }}
        </option>
      </select>
    </div>
    <fieldset>
      <legend class="sect">{{ t('sources.can') }}</legend>
      <label v-for="f in features" :key="f"
        ><input v-model="map[f]" type="checkbox" /> {{ t(`sources.can_.${f}`) }}</label
      >
    </fieldset>
  </section>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: auto minmax(110px, 1fr) auto minmax(110px, 1fr);
  gap: 6px 14px;
  align-items: center;
  margin: 8px 0 12px;
}

select.chip {
  font: 12.5px var(--mono);
  color: var(--ink);
  min-width: 0;
}

fieldset {
  border: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
}

legend {
  margin-bottom: 4px;
}

fieldset label {
  display: flex;
  gap: 6px;
  align-items: center;
}

input[type='checkbox'] {
  accent-color: var(--plum);
}

@media (max-width: 820px) {
  .grid {
    grid-template-columns: auto minmax(110px, 1fr);
  }
}
</style>
