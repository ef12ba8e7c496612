<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, onMounted, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** A search somewhere that Tamiz cannot ask: where, what was typed, when, and how much it found. */
const emit = defineEmits<{ done: [] }>()
const { t } = useI18n()
const review = useReview()
const sources = useSources()
const problem = useProblem()

const ways = ['search', 'register', 'browsing', 'citations', 'people', 'earlier', 'other'] as const
const way = ref<(typeof ways)[number]>('search')
const place = ref('')
const day = ref(new Date().toISOString().slice(0, 10))
const records = ref('')
const query = ref('')
const note = ref('')
const once = useOnce()
const field = ref<HTMLInputElement>()
onMounted(() => field.value?.focus())
const count = computed(() => records.value.replace(/[\s,.]/g, ''))
const good = computed(() => place.value.trim() && day.value && /^\d*$/.test(count.value))
const save = useMutation({
  mutationFn: () =>
    once((headers) =>
      ask(
        api.POST('/api/reviews/{review}/runs/by-hand', {
          params: { path: { review: review.id } },
          headers,
          body: {
            way: way.value,
            place: place.value,
            query: query.value,
            at: `${day.value}T12:00:00Z`,
            records: count.value ? Number(count.value) : undefined,
            note: note.value || undefined,
          },
        }),
      ),
    ),
  onSuccess: () => {
    sources.fresh('runs')
    emit('done')
  },
})
</script>

<template>
  <form
    class="card"
    :aria-label="t('runs.write')"
    @submit.prevent="good && save.mutate()"
    @keydown.esc="emit('done')"
  >
    <div class="row">
      <label class="small"
        >{{ t('runs.wayOf')
        }}<select v-model="way" class="field">
          <option v-for="w in ways" :key="w" :value="w">{{ t(`runs.way.${w}`) }}</option>
        </select></label
      ><label class="small grow"
        >{{ t('runs.placeOf')
        }}<input ref="field" v-model="place" class="field" maxlength="200" /></label
      ><label class="small"
        >{{ t('runs.day') }}<input v-model="day" type="date" class="field" /></label
      ><label class="small"
        >{{ t('runs.found') }}<input v-model="records" class="field count" inputmode="numeric"
      /></label>
    </div>
    <label class="small"
      >{{ t('runs.typed') }}<textarea v-model="query" class="field mono" rows="3" />
    </label>
    <label class="small"
      >{{ t('runs.noteOf') }}<input v-model="note" class="field" maxlength="4000"
    /></label>
    <p v-if="save.error.value" class="wrong" role="alert">{{ problem(save.error.value) }}</p>
    <div class="row">
      <button class="btn" :disabled="!good || save.isPending.value">{{ t('runs.save') }}</button>
      <button type="button" class="btn bare" @click="emit('done')">{{ t('act.cancel') }}</button>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  margin-bottom: 12px;
  padding: 12px;
}

label {
  display: grid;
  gap: 3px;
}

.count {
  width: 110px;
}

.wrong {
  color: var(--miss);
}
</style>
