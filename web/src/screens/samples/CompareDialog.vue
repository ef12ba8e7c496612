<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useSaving } from '@/parts/files/saving'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'

/** Two samples side by side: what both hold, what only one does, and a new sample made of them. */
const emit = defineEmits<{ close: [] }>()
const { t, n } = useI18n()
const review = useReview()
const problem = useProblem()
const saving = useSaving()

const a = ref(review.look.sample ?? review.samples[0]?.id)
const b = ref(review.samples.find((s) => s.id !== a.value)?.id)
const how = ref<'union' | 'overlap' | 'difference'>('overlap')
const typed = ref('')
const failed = ref('')
const name = (id?: number) => review.samples.find((s) => s.id === id)?.name ?? ''
const proposed = computed(() =>
  t(`compare.names.${how.value}`, { a: name(a.value), b: name(b.value) }),
)
watch(proposed, () => (typed.value = ''))

const compared = useFigure(figures.comparedSamples, () => ({ a: a.value ?? 0, b: b.value ?? 0 }), {
  enabled: () => a.value !== undefined && b.value !== undefined && a.value !== b.value,
})
const c = computed(() => (a.value === b.value ? undefined : compared.data.value))
const many = computed(() =>
  c.value ? { union: c.value.any, overlap: c.value.both, difference: c.value.onlyA }[how.value] : 0,
)

async function make() {
  try {
    await ask(
      api.POST('/api/reviews/{review}/joined', {
        params: { path: { review: review.id } },
        body: {
          a: a.value ?? 0,
          b: b.value ?? 0,
          how: how.value,
          name: (typed.value || proposed.value).slice(0, 200),
        },
      }),
    )
    await review.refresh()
    emit('close')
  } catch (error) {
    failed.value = problem(error)
  }
}
</script>

<template>
  <v-dialog
    :model-value="true"
    :max-width="620"
    :aria-label="t('compare.title')"
    @update:model-value="emit('close')"
  >
    <v-card class="compare">
      <h2 class="display">{{ t('compare.title') }}</h2>
      <p class="small">{{ t('compare.text') }}</p>
      <div class="pick">
        <label class="small" for="cmp-a">{{ t('compare.first') }}</label>
        <select id="cmp-a" v-model="a" class="chip">
          <option v-for="s in review.samples" :key="s.id" :value="s.id">{{ s.name }}</option>
        </select>
        <label class="small" for="cmp-b">{{ t('compare.second') }}</label>
        <select id="cmp-b" v-model="b" class="chip">
          <option v-for="s in review.samples" :key="s.id" :value="s.id">{{ s.name }}</option>
        </select>
      </div>
      <template v-if="c">
        <div class="bar" aria-hidden="true">
          <i class="a" :style="{ flex: c.onlyA }" /><i class="ab" :style="{ flex: c.both }" /><i
            class="b"
            :style="{ flex: c.onlyB }"
          />
        </div>
        <dl>
          <div>
            <dt>{{ t('compare.only', { name: name(a) }) }}</dt>
            <dd>{{ n(c.onlyA, 'whole') }}</dd>
          </div>
          <div>
            <dt>{{ t('compare.both') }}</dt>
            <dd>{{ n(c.both, 'whole') }}</dd>
          </div>
          <div>
            <dt>{{ t('compare.only', { name: name(b) }) }}</dt>
            <dd>{{ n(c.onlyB, 'whole') }}</dd>
          </div>
        </dl>
        <p class="small">{{ t('compare.share', { share: n(c.b ? c.both / c.b : 0, 'share') }) }}</p>
        <div class="row make">
          <span class="group" role="group">
            <button
              v-for="h in ['union', 'overlap', 'difference'] as const"
              :key="h"
              class="opt"
              :class="{ on: how === h }"
              :aria-pressed="how === h"
              @click="how = h"
            >
              {{ t(`compare.${h}`) }}
            </button>
          </span>
          <input
            v-model="typed"
            class="field grow"
            :placeholder="proposed"
            :aria-label="t('compare.name')"
            maxlength="200"
          />
        </div>
      </template>
      <p v-if="failed || compared.error.value" class="wrong" role="alert">
        {{ failed || problem(compared.error.value) }}
      </p>
      <div class="row foot">
        <span class="grow" /><button class="btn outline" @click="emit('close')">
          {{ t('reader.close') }}
        </button>
        <button
          class="btn outline"
          :disabled="!many"
          @click="
            saving.save({ kind: 'joined', a: a ?? 0, b: b ?? 0, how }, typed || proposed, many)
          "
        >
          {{ t('save.joined') }}
        </button>
        <button class="btn" :disabled="!many" @click="make">
          {{ t('compare.make', { n: n(many, 'whole') }, many) }}
        </button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.compare {
  padding: 18px 20px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

.pick {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 6px 10px;
  align-items: center;
  margin: 12px 0;
}

select.chip {
  font: 13px var(--ui);
  color: var(--ink);
}

.bar {
  display: flex;
  gap: 2px;
  height: 16px;
}

.bar i {
  min-width: 0;
  background: var(--plum);
}

.bar .ab {
  background: var(--gold-bright);
}

.bar .b {
  background: #a886a0;
}

dl div {
  display: flex;
  justify-content: space-between;
  padding: 3px 0;
  border-bottom: 1px solid var(--line-soft);
}

dd {
  margin: 0;
  font-weight: 600;
}

.make {
  margin-top: 12px;
  gap: 10px;
}

.foot {
  margin-top: 14px;
}
</style>
