<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block } from '@/api/client'

/** The words that a concept begins with. */
const props = defineProps<{ block: Block }>()
const emit = defineEmits<{
  patch: [change: Partial<Block>, key: string, params: Record<string, string>]
}>()

const { t } = useI18n()
const seed = ref('')

function addSeeds() {
  const words = seed.value
    .split(/[,;\n]/)
    .map((w) => w.trim())
    .filter((w) => w && !props.block.seeds.includes(w))
  seed.value = ''
  if (words.length)
    emit('patch', { seeds: [...props.block.seeds, ...words] }, 'seeds', { seed: words.join(', ') })
}

function dropSeed(word: string) {
  emit('patch', { seeds: props.block.seeds.filter((s) => s !== word) }, 'dropSeed', { seed: word })
}
</script>

<template>
  <div class="seeds">
    <span v-for="s in block.seeds" :key="s" class="seed mono"
      >{{ s
      }}<button :aria-label="t('question.dropSeed', { seed: s })" @click="dropSeed(s)">
        ×
      </button></span
    >
    <input
      v-model="seed"
      class="add mono"
      :placeholder="t('question.addSeed')"
      :aria-label="t('question.seedsOf', { block: block.name })"
      maxlength="300"
      @keydown.enter.prevent="addSeeds"
      @blur="addSeeds"
    />
  </div>
</template>

<style scoped>
.seeds {
  margin: 10px 0 8px;
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  align-content: flex-start;
  min-height: 56px;
  flex: 1;
}

.seed,
.add {
  font-size: 12.5px;
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 2px 7px;
  background: var(--white);
}

.seed button {
  border: 0;
  background: none;
  padding: 0 0 0 5px;
  color: var(--ink-3);
  cursor: pointer;
}

.seed button:hover {
  color: var(--miss);
}

.add {
  width: 112px;
  border-color: transparent;
  background: transparent;
}

.add::placeholder {
  color: var(--ink-3);
}

.add:hover,
.add:focus {
  border-color: var(--line);
  background: var(--white);
}
</style>
