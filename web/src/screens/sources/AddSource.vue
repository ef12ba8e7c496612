<script setup lang="ts">
import { ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { figures } from '@/figures'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'
import { useSources } from '@/state/sources'

/** Adds a source by its address: it is asked what it says of itself. */
const emit = defineEmits<{ added: [id: number] }>()

const { t } = useI18n()
const sources = useSources()
const problem = useProblem()
const address = ref('')
const once = useOnce()
const asking = ref(false)
const failed = ref('')
watch(address, () => (failed.value = ''))

async function add() {
  asking.value = true
  try {
    const body = { address: address.value.trim() }
    const s = await once((headers) => ask(api.POST('/api/sources', { headers, body })), body)
    sources.fresh(figures.sources)
    address.value = ''
    emit('added', s.id)
  } catch (error) {
    failed.value = problem(error)
  } finally {
    asking.value = false
  }
}
</script>

<template>
  <form class="card adding" @submit.prevent="add">
    <p class="small">{{ t('sources.addText') }}</p>
    <div class="row">
      <input
        v-model="address"
        class="field mono grow"
        type="url"
        :aria-label="t('sources.address')"
        placeholder="https://…"
        maxlength="500"
        required
        :aria-invalid="!!failed"
        aria-describedby="add-source-said"
      />
      <button class="btn" :disabled="asking || !address.trim()">
        {{ asking ? t('sources.asking') : t('sources.addIt') }}
      </button>
    </div>
    <p id="add-source-said" class="wrong" aria-live="polite">{{ failed }}</p>
  </form>
</template>

<style scoped>
.adding {
  padding: 12px 14px;
  margin: 8px 0;
}

.adding .row {
  margin-top: 8px;
}
</style>
