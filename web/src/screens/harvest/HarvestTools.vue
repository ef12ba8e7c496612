<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import WithTip from '@/parts/WithTip.vue'
import { states } from './candidates'
import type { Filters } from './filters'
import MoreFilters from './MoreFilters.vue'

/** Which candidates are shown: by what is decided, by what they say, by their figures. */
const show = defineModel<(typeof states)[number]>('show', { required: true })
const words = defineModel<string>('words', { required: true })
const filters = defineModel<Filters>('filters', { required: true })
const withAside = defineModel<boolean>('withAside', { required: true })
defineProps<{
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
function clear() {
  words.value = ''
  emit('list')
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
    <MoreFilters v-model="filters" :has-contrast="hasContrast" :has-keys="hasKeys" />
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
    <span v-if="proposing" class="small cut" role="status">{{ t('suit.proposing') }}</span>
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

.aside.on {
  background: var(--gold-soft);
}
</style>
