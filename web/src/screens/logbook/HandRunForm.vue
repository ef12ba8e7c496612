<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, onMounted, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Run } from '@/api/client'
import { figures } from '@/figures'
import FileDrop from '@/parts/FileDrop.vue'
import ImportProgress from '@/parts/ImportProgress.vue'
import { useImports } from '@/state/imports'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/**
 * A search somewhere that Tamiz cannot ask: where, what was typed, when, how much it found, and the file of it. With one that was
 * written down before, what puts that one right.
 */
const props = defineProps<{ was?: Run }>()
const emit = defineEmits<{ done: [] }>()
const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const problem = useProblem()

const ways = ['search', 'register', 'browsing', 'citations', 'people', 'earlier', 'other'] as const
const was = props.was
const way = ref<(typeof ways)[number]>(was?.way ?? 'search')
const place = ref(was?.place ?? '')
const day = ref((was?.at ?? new Date().toISOString()).slice(0, 10))
const records = ref(was?.records === undefined ? '' : String(was.records))
const query = ref(was?.query ?? '')
const note = ref(was?.note ?? '')
const sample = ref(was?.sample ?? 0)
const never = ref(false)
const once = useOnce()
const field = ref<HTMLInputElement>()
onMounted(() => field.value?.focus())
const count = computed(() => records.value.replace(/[\s,.]/g, ''))
const good = computed(
  () => never.value || (place.value.trim() && day.value && /^\d*$/.test(count.value)),
)

const imports = useImports()
const brought = ref('') // the file that is on its way
function bring(files: File[]) {
  brought.value = files[0].name
  imports.bring(files.slice(0, 1), 'sample')
}
watch(
  () => review.samples,
  (now, before) => {
    const come = now.find((s) => s.fileName === brought.value && !before.some((b) => b.id === s.id))
    if (!brought.value || !come) return
    sample.value = come.id
    brought.value = ''
  },
)
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
            at: day.value === was?.at.slice(0, 10) ? was.at : `${day.value}T12:00:00Z`,
            records: count.value ? Number(count.value) : undefined,
            note: note.value || undefined,
            sample: sample.value || undefined,
            corrects: was?.id,
            void: never.value || undefined,
          },
        }),
      ),
    ),
  onSuccess: () => {
    sources.fresh(figures.runs, figures.everywhere, figures.writtenRecord)
    emit('done')
  },
})
</script>

<template>
  <form
    class="card"
    :aria-label="t(was ? 'runs.correctOf' : 'runs.write', { place: was?.place })"
    @submit.prevent="good && save.mutate()"
    @keydown.esc="emit('done')"
  >
    <label v-if="was" class="row small check"
      ><input v-model="never" type="checkbox" />{{ t('runs.never') }}</label
    >
    <template v-if="!never">
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
      <FileDrop v-slot="{ choose }" :hint="t('runs.drop')" @files="bring">
        <div class="row">
          <label class="small grow"
            >{{ t('runs.file')
            }}<select v-model.number="sample" class="field">
              <option :value="0">{{ t('runs.noFile') }}</option>
              <option v-for="s in review.samples" :key="s.id" :value="s.id">
                {{ t('runs.ofSample', { name: s.name, n: n(s.records, 'whole') }, s.records) }}
              </option>
            </select></label
          >
          <button type="button" class="btn outline" @click="choose">{{ t('runs.bring') }}</button>
        </div>
        <ImportProgress kind="sample" />
        <p class="small">{{ t('runs.fileHint') }}</p>
      </FileDrop>
    </template>
    <label class="small"
      >{{ t('runs.noteOf') }}<input v-model="note" class="field" maxlength="4000"
    /></label>
    <p v-if="save.error.value" class="wrong" role="alert">{{ problem(save.error.value) }}</p>
    <div class="row">
      <button class="btn" :disabled="!good || save.isPending.value">
        {{ t(was ? 'runs.saveCorrect' : 'runs.save') }}
      </button>
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

.check {
  display: flex;
  justify-content: start;
}

.count {
  width: 110px;
}

.wrong {
  color: var(--miss);
}
</style>
