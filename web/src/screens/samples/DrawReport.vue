<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { api, ask, type Draw } from '@/api/client'
import { figures, useFigure } from '@/figures'
import SourceNotes from '@/parts/SourceNotes.vue'
import { useLooked } from '@/state/looked'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** How a sample was drawn, and what could not be got; from here more of it can be drawn. */
const props = defineProps<{ draw: Draw }>()
const emit = defineEmits<{ close: [] }>()

const { t, n, te, d } = useI18n()
const review = useReview()
const sources = useSources()
const looked = useLooked()
const router = useRouter()
const problem = useProblem()
const many = ref(props.draw.atMost)
const failed = ref('')

const troubles = useFigure(figures.troubles, () => ({
  draw: props.draw.id,
  got: props.draw.got,
  troubles: props.draw.troubles,
}))
type Trouble = NonNullable<typeof troubles.data.value>[number]

const where = (x: Trouble) =>
  x.from === 0
    ? ''
    : x.from === x.to
      ? t('trouble.at', { from: n(x.from, 'whole') })
      : t('trouble.range', { from: n(x.from, 'whole'), to: n(x.to, 'whole') })
const what = (x: Trouble) =>
  [te(`trouble.${x.kind}`) ? t(`trouble.${x.kind}`) : x.kind, x.detail].filter(Boolean).join(' – ')

/** A part is looked at by itself, as any set of the sample is. */
async function lookAt(sample: number, part: number) {
  const set = { kind: 'sample' as const, sample, part }
  await review.lookAt({ source: props.draw.source, sample, rest: true, set })
  looked.mark()
  emit('close')
  await router.push({ name: 'harvest', params: { review: review.id } })
}

async function more(atMost: number) {
  try {
    await ask(
      api.POST('/api/reviews/{review}/draws/{draw}/go-on', {
        params: { path: { review: review.id, draw: props.draw.id } },
        body: { atMost },
      }),
    )
    sources.fresh(figures.draws)
    emit('close')
  } catch (error) {
    failed.value = problem(error)
  }
}
</script>

<template>
  <v-dialog
    :model-value="true"
    :max-width="680"
    :aria-label="t('draw.report', { name: draw.name })"
    @update:model-value="emit('close')"
  >
    <v-card class="report">
      <h2 class="display">{{ draw.name }}</h2>
      <p class="small">
        {{
          [
            draw.from,
            d(draw.made, 'day'),
            t(`how.${draw.how}`) +
              (draw.how === 'random' ? `, ${t('draw.seed')} ${draw.seed}` : ''),
            t('draw.reportSum', {
              total: n(draw.total, 'whole'),
              wanted: n(draw.wanted, 'whole'),
              got: n(draw.got, 'whole'),
            }),
          ].join(' · ')
        }}
      </p>
      <template v-if="draw.parts.length">
        <h3 class="sect">{{ t('draw.partsTitle') }}</h3>
        <ul>
          <li v-for="(p, i) in draw.parts" :key="i" class="small">
            {{
              p.concepts.length
                ? t('draw.part', {
                    n: n(p.wanted, 'whole'),
                    total: n(p.total, 'whole'),
                    blocks: looked.partName(p),
                  })
                : t('draw.partAny', { n: n(p.wanted, 'whole') })
            }}
            <button
              v-if="draw.sample"
              class="link"
              :aria-label="t('draw.lookAtPartOf', { part: looked.partName(p) })"
              @click="lookAt(draw.sample, i)"
            >
              {{ t('draw.lookAtPart') }}
            </button>
          </li>
        </ul>
      </template>
      <h3 class="sect">{{ t('draw.query') }}</h3>
      <pre class="mono wire" tabindex="0">{{ draw.query }}</pre>
      <SourceNotes :notes="draw.notes" />
      <h3 class="sect">
        {{ t('draw.troubles', { n: n(draw.troubles, 'whole') }, draw.troubles) }}
      </h3>
      <ul v-if="troubles.data.value?.length" class="list" tabindex="0">
        <li v-for="(x, i) in troubles.data.value.slice(0, 1000)" :key="i">
          <span class="small">{{ where(x) }}</span> {{ what(x) }}
        </li>
      </ul>
      <p v-else class="small">{{ t('draw.noTroubles') }}</p>
      <p v-if="failed" class="wrong" role="alert">{{ failed }}</p>
      <form class="row foot" @submit.prevent="more(many)">
        <template
          v-if="
            (draw.state === 'done' || draw.state === 'stopped') &&
            (draw.wanted < draw.total || draw.got < draw.wanted)
          "
        >
          <label class="small"
            >{{ t('draw.atMost') }}
            <input
              v-model.number="many"
              class="field many"
              type="number"
              :min="draw.atMost"
              max="1000000"
              :aria-label="t('draw.raiseTo', { name: draw.name })"
          /></label>
          <button class="btn outline" :disabled="!(many > draw.atMost) && draw.got >= draw.wanted">
            {{
              many > draw.atMost
                ? t('draw.raise')
                : draw.state === 'stopped'
                  ? t('draw.goOn')
                  : t('draw.rest')
            }}
          </button>
        </template>
        <span class="grow" /><button type="button" class="btn" @click="emit('close')">
          {{ t('reader.close') }}
        </button>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.report {
  padding: 18px 20px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

h3 {
  margin: 14px 0 4px;
}

.list {
  max-height: 32vh;
  overflow-y: auto;
}

.list li {
  padding: 3px 0;
  overflow-wrap: anywhere;
}

.foot {
  margin-top: 14px;
}

.many {
  width: 96px;
}
</style>
