<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type HeadingWhole } from '@/api/client'
import { figures, useFresh } from '@/figures'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useThrough } from './through'

/** Of a heading of another vocabulary: which headings of one's own it stands for, where a source of it is asked. */
const props = defineProps<{ whole: HeadingWhole }>()
const { t } = useI18n()
const review = useReview()
const through = useThrough()
const fresh = useFresh()
const problem = useProblem()

const wrong = ref('')
const stands = computed(() => props.whole.standsFor ?? [])
/** Headings that are terms and that it does not stand for yet, each with its block. */
const open = computed(() => {
  const out = new Map<string, string>()
  for (const b of review.document.blocks)
    for (const x of b.terms)
      if (x.kind === 'heading' && x.heading && !stands.value.includes(x.heading))
        out.set(x.heading, b.name)
  return [...out]
})

async function decide(heading: string, forget: boolean) {
  wrong.value = ''
  try {
    await ask(
      api.POST('/api/reviews/{review}/counterparts', {
        params: { path: { review: review.id } },
        body: {
          heading,
          vocabulary: through.other!.name,
          stands: props.whole.heading,
          forget,
        },
      }),
    )
    fresh(
      figures.heading,
      figures.headings,
      figures.typedIn,
      figures.lines,
      figures.counts,
      figures.everywhere,
    )
  } catch (error) {
    wrong.value = problem(error)
  }
}
function choose(e: Event) {
  const select = e.target as HTMLSelectElement
  if (select.value) void decide(select.value, false)
  select.value = ''
}
</script>

<template>
  <section :aria-label="t('through.stands')">
    <h3 class="sect">{{ t('through.stands') }}</h3>
    <p class="small">{{ t('through.standsTip', { vocabulary: through.other?.name ?? '' }) }}</p>
    <p v-if="wrong" class="wrong small" role="alert">{{ wrong }}</p>
    <ul>
      <li v-for="h in stands" :key="h" class="row">
        <span class="chip cut"
          ><b>{{ h }}</b></span
        ><button
          class="btn bare"
          :aria-label="t('carry.offLabel', { heading: whole.heading, for: h })"
          @click="decide(h, true)"
        >
          {{ t('carry.off') }}
        </button>
      </li>
    </ul>
    <select v-if="open.length" class="field" :aria-label="t('through.choose')" @change="choose">
      <option value="">{{ t('through.choose') }}</option>
      <option v-for="[h, b] in open" :key="h" :value="h">{{ b }} · {{ h }}</option>
    </select>
    <p v-else-if="!stands.length" class="small">{{ t('through.noTerms') }}</p>
  </section>
</template>

<style scoped>
li {
  margin: 4px 0;
  min-width: 0;
}

.field {
  width: 100%;
  margin-top: 4px;
}

.wrong {
  color: var(--miss);
}
</style>
