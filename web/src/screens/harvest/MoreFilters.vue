<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { bounded, filtersOn, noFilters, type Filters } from './filters'

/** Filters beyond words: figures within bounds, only what missed key studies hold, only what no block finds. */
const filters = defineModel<Filters>({ required: true })
const props = defineProps<{ hasContrast: boolean; hasKeys: boolean }>()

const { t } = useI18n()
const figures = computed(() => bounded.filter((b) => b === 'records' || props.hasContrast))
const on = computed(() => filtersOn(filters.value))

function bound(end: 'from' | 'to', figure: (typeof bounded)[number], typed: string) {
  const value = typed.trim() === '' ? undefined : Number(typed)
  filters.value = {
    ...filters.value,
    [end]: { ...filters.value[end], [figure]: Number.isFinite(value) ? value : undefined },
  }
}
</script>

<template>
  <v-menu :close-on-content-click="false">
    <template #activator="{ props: menu }"
      ><button class="btn bare more" :class="{ on }" v-bind="menu">
        {{ on ? t('filters.on', { n: on }, on) : t('filters.title') }}
      </button></template
    >
    <v-card class="sheet" role="dialog" :aria-label="t('filters.title')">
      <div v-for="f in figures" :key="f" class="bounds">
        <span>{{ t(`figure.${f}`) }}</span>
        <input
          class="field"
          inputmode="decimal"
          :aria-label="t('filters.from', { figure: t(`figure.${f}`) })"
          :value="filters.from[f]"
          @change="bound('from', f, ($event.target as HTMLInputElement).value)"
        />
        <span aria-hidden="true">–</span>
        <input
          class="field"
          inputmode="decimal"
          :aria-label="t('filters.to', { figure: t(`figure.${f}`) })"
          :value="filters.to[f]"
          @change="bound('to', f, ($event.target as HTMLInputElement).value)"
        />
      </div>
      <label v-if="hasKeys"
        ><input v-model="filters.missed" type="checkbox" /> {{ t('filters.missed') }}</label
      >
      <label
        ><input v-model="filters.unmatched" type="checkbox" /> {{ t('filters.unmatched') }}</label
      >
      <button class="btn outline" :disabled="!on" @click="filters = noFilters()">
        {{ t('filters.clear') }}
      </button>
    </v-card>
  </v-menu>
</template>

<style scoped>
.more.on {
  background: var(--gold-soft);
}

.sheet {
  display: grid;
  gap: 9px;
  padding: 12px 14px;
}

.bounds {
  display: grid;
  grid-template-columns: 70px 74px auto 74px;
  align-items: center;
  gap: 6px;
}

.bounds .field {
  padding: 2px 7px;
}

label {
  display: flex;
  gap: 7px;
  align-items: center;
  cursor: pointer;
}

input[type='checkbox'] {
  accent-color: var(--plum);
}
</style>
