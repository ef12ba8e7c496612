<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Lookup } from '@/api/client'
import { figures } from '@/figures'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** Paste titles, DOIs or whole references: each is looked up in every source; what is found is taken by hand. */
const emit = defineEmits<{ close: [] }>()
const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const problem = useProblem()

const pasted = ref('')
const found = ref<Lookup[]>()
const taken = ref(new Set<number>())
const busy = ref(false)
const failed = ref('')

async function find() {
  busy.value = true
  failed.value = ''
  try {
    found.value = await ask(
      api.POST('/api/reviews/{review}/look-up', {
        params: { path: { review: review.id } },
        body: { text: pasted.value },
      }),
    )
    // Only what is the work itself is ticked, once; what resembles it waits for a person.
    taken.value = new Set(
      found.value.flatMap((l) =>
        l.found
          .filter((f) => f.how !== 'near')
          .slice(0, 1)
          .map((f) => f.record.id),
      ),
    )
  } catch (error) {
    failed.value = problem(error)
  } finally {
    busy.value = false
  }
}

async function take() {
  busy.value = true
  try {
    await ask(
      api.POST('/api/reviews/{review}/key-studies', {
        params: { path: { review: review.id } },
        body: { records: [...taken.value] },
      }),
    )
    await review.refresh()
    sources.fresh(figures.holdings)
    emit('close')
  } catch (error) {
    failed.value = problem(error)
  } finally {
    busy.value = false
  }
}

const many = computed(() => taken.value.size)
function tick(id: number, on: boolean) {
  const next = new Set(taken.value)
  if (on) next.add(id)
  else next.delete(id)
  taken.value = next
}
</script>

<template>
  <v-dialog
    :model-value="true"
    :max-width="720"
    :aria-label="t('holding.pasteTitle')"
    @update:model-value="emit('close')"
  >
    <v-card class="look">
      <h2 class="display">{{ t('holding.pasteTitle') }}</h2>
      <label class="small" for="pasted">{{ t('holding.pasteLabel') }}</label>
      <textarea id="pasted" v-model="pasted" class="field" rows="5" maxlength="200000" />
      <p v-if="failed" class="wrong" role="alert">{{ failed }}</p>
      <ul v-if="found" class="found" tabindex="0" aria-live="polite">
        <li v-for="(l, i) in found" :key="i">
          <p class="small cut line" :title="l.line">{{ l.line }}</p>
          <label v-for="f in l.found" :key="`${f.source}-${f.record.id}`" class="row">
            <input
              type="checkbox"
              :checked="taken.has(f.record.id)"
              :aria-label="t('holding.choose', { title: f.record.title })"
              @change="tick(f.record.id, ($event.target as HTMLInputElement).checked)"
            />
            <span
              ><b>{{ f.record.title }}</b
              >{{ ' ' }}
              <span class="small"
                >{{ [f.record.byline, f.record.year || ''].filter(Boolean).join(' ') }} ·
                {{ f.from }}, </span
              ><span class="small" :class="{ near: f.how === 'near' }">{{
                t(`holding.how.${f.how}`)
              }}</span></span
            >
          </label>
          <p v-if="!l.found.length" class="small">{{ l.problem || t('holding.nothing') }}</p>
        </li>
      </ul>
      <div class="row foot">
        <span class="grow" /><button class="btn outline" @click="emit('close')">
          {{ t('reader.close') }}
        </button>
        <button
          class="btn"
          :class="{ outline: many > 0 }"
          :disabled="busy || !pasted.trim()"
          @click="find"
        >
          {{ busy ? t('holding.finding') : t('holding.find') }}
        </button>
        <button v-if="found" class="btn" :disabled="busy || !many" @click="take">
          {{ t('holding.take', { n: n(many, 'whole') }, many) }}
        </button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.look {
  padding: 18px 20px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
  margin-bottom: 6px;
}

textarea {
  width: 100%;
  resize: vertical;
  margin-top: 4px;
}

.found {
  max-height: 46vh;
  overflow-y: auto;
  margin-top: 10px;
}

.found > li {
  padding: 7px 0;
  border-bottom: 1px solid var(--line-soft);
}

.found label {
  align-items: flex-start;
  padding: 3px 0;
}

.line {
  font-style: italic;
}

.near {
  color: var(--gold-deep);
}

.foot {
  margin-top: 12px;
}
</style>
