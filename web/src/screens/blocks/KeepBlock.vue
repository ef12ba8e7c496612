<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block } from '@/api/client'
import { useKept } from '@/state/kept'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'

/** Keeps a block for other reviews, under a name; under one that is there already, as its next version. */
const props = defineProps<{ block: Block }>()
const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const kept = useKept()
const notes = useNotes()
const problem = useProblem()

const name = ref(props.block.origin?.name ?? props.block.concept)
const note = ref('')
const wrong = ref<unknown>()
const busy = ref(false)
const field = ref<HTMLInputElement>()
onMounted(() => field.value?.focus())
const before = computed(() => kept.newest.value.find((k) => k.name === name.value.trim()))

async function keep() {
  if (!name.value.trim() || busy.value) return
  busy.value = true
  try {
    const k = await kept.keep(props.block.id, name.value.trim(), note.value.trim())
    notes.say({ text: t('kept.done', { name: k.name, version: k.version }) })
    emit('close')
  } catch (error) {
    wrong.value = error
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form
    class="card"
    :aria-label="t('kept.keep')"
    @submit.prevent="keep"
    @keydown.esc="emit('close')"
  >
    <p class="small">{{ t('kept.text') }}</p>
    <div class="row">
      <input
        ref="field"
        v-model="name"
        class="field"
        maxlength="200"
        :aria-label="t('kept.name')"
        :placeholder="t('kept.name')"
      />
      <input
        v-model="note"
        class="field grow"
        maxlength="4000"
        :aria-label="t('kept.note')"
        :placeholder="t('kept.note')"
      />
      <button class="btn" :disabled="!name.trim() || busy">
        {{ before ? t('kept.next', { version: before.version + 1 }) : t('kept.first') }}
      </button>
      <button type="button" class="btn bare" @click="emit('close')">{{ t('act.cancel') }}</button>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ problem(wrong) }}</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  padding: 12px;
  margin: 8px 0;
}

.row {
  flex-wrap: wrap;
}

.field:not(.grow) {
  width: 220px;
}

.wrong {
  color: var(--miss);
}
</style>
