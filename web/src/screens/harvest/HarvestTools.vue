<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import WithTip from '@/parts/WithTip.vue'
import { states } from './candidates'
import { bounded, filtersOn, noFilters, type Filters } from './filters'

/** Which candidates are shown: by what is decided, by what they say, by their figures. */
const show = defineModel<(typeof states)[number]>('show', { required: true })
const words = defineModel<string>('words', { required: true })
const filters = defineModel<Filters>('filters', { required: true })
const withAside = defineModel<boolean>('withAside', { required: true })
const props = defineProps<{
  shown: number
  /** Where more pass than were sent: how many. */
  beyond: number
  decides: boolean
  hasContrast: boolean
  hasKeys: boolean
  refused: boolean
  aside: number
  proposing: boolean
}>()
const emit = defineEmits<{ list: []; help: [] }>()

const { t, n } = useI18n()
const filter = ref<HTMLInputElement>()
const figures = computed(() => bounded.filter((b) => b === 'records' || props.hasContrast))
const on = computed(() => filtersOn(filters.value))

function clear() {
  words.value = ''
  emit('list')
}

function bound(end: 'from' | 'to', figure: (typeof bounded)[number], typed: string) {
  const value = typed.trim() === '' ? undefined : Number(typed)
  filters.value = {
    ...filters.value,
    [end]: { ...filters.value[end], [figure]: Number.isFinite(value) ? value : undefined },
  }
}

defineExpose({ focus: () => filter.value?.focus() })
</script>

<template>
  <div class="tools">
    <div v-if="decides" class="states" role="group" :aria-label="t('harvest.show')">
      <button
        v-for="s in states"
        :key="s"
        :class="{ here: s === show }"
        :aria-pressed="s === show"
        @click="show = s"
      >
        {{ t(`state.${s}`) }}
      </button>
    </div>
    <label class="visually-hidden" for="filter">{{ t('harvest.filter') }}</label>
    <input
      id="filter"
      ref="filter"
      v-model="words"
      class="field"
      :class="{ refused }"
      :placeholder="t('filters.hint')"
      autocomplete="off"
      maxlength="200"
      :aria-invalid="refused"
      @keydown.esc="clear"
      @keydown.enter="emit('list')"
      @keydown.down.prevent="emit('list')"
    />
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
    <span v-if="refused" class="wrong small" role="alert">{{ t('filters.refused') }}</span>
    <WithTip v-else-if="beyond" :text="t('harvest.firstTip')">
      <template #default="{ describedBy }">
        <span class="small" tabindex="0" :aria-describedby="describedBy">{{
          t('harvest.first', { n: n(shown, 'whole'), of: n(beyond, 'whole') })
        }}</span>
      </template>
    </WithTip>
    <span v-else class="small">{{ t('harvest.shown', { n: n(shown, 'whole') }, shown) }}</span>
    <button
      v-if="aside"
      class="btn bare aside"
      :class="{ on: withAside }"
      :aria-pressed="withAside"
      :title="t('looked.asideTip')"
      @click="withAside = !withAside"
    >
      {{ t('looked.aside', { n: n(aside, 'whole') }) }}
    </button>
    <span v-if="proposing" class="small" role="status">{{ t('suit.proposing') }}</span>
    <span class="grow" />
    <slot />
    <button v-if="decides" class="btn bare" @click="emit('help')">
      <span class="label">{{ t('keysHelp.open') }}</span> <kbd>?</kbd>
    </button>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex: none;
  align-items: center;
  gap: 4px 10px;
  margin-top: 8px;
  white-space: nowrap;
}

.tools > .field {
  width: 140px;
  min-width: 64px;
  flex: 0 1 140px;
  padding: 3px 9px;
}

@media (max-width: 1150px) {
  .tools {
    gap: 4px;
  }

  .tools .states button {
    padding-inline: 6px;
  }

  .tools :deep(.btn) {
    padding-inline: 5px;
  }

  .tools > .small:not(.wrong) {
    display: none;
  }

  .tools :deep(.label) {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}

@media (max-width: 820px) {
  .tools {
    flex-wrap: wrap;
  }
}

.field.refused {
  border-color: var(--miss);
}

.wrong {
  color: var(--miss);
}

.more.on,
.aside.on {
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

.states {
  display: flex;
  flex: none;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  overflow: hidden;
  background: var(--white);
}

.states button {
  border: 0;
  border-right: 1px solid var(--line);
  background: none;
  padding: 3px 9px;
  font-size: 12.5px;
  cursor: pointer;
}

.states button:last-child {
  border-right: 0;
}

.states button.here {
  background: var(--plum);
  color: #fff;
}

.states button:focus-visible {
  outline-offset: -2px;
}
</style>
