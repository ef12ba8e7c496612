<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { stripMarks, useBench } from '@/state/bench'
import { useProblem } from '@/state/problem'
import { useSources } from '@/state/sources'
import BenchBlocks from './BenchBlocks.vue'
import BenchLimits from './BenchLimits.vue'
import CatchStrip from './CatchStrip.vue'
import NarrowNote from './NarrowNote.vue'
import { useReader } from './reader'
import { useMade } from './made'
import { signedWith } from './signed'

const problem = useProblem()
const { t, n, d } = useI18n()
const sources = useSources()
const made = useMade()
const bench = useBench()
const reader = useReader()
const emit = defineEmits<{ fold: [] }>()

const count = (marks?: boolean[]) => marks?.filter(Boolean).length ?? 0
const shown = computed(() => bench.ahead ?? bench.now)
/** Key studies that the chosen source holds; what it does not hold no strategy can catch there. */
const away = computed(() => count(bench.now?.notHere))
const whole = computed(() => sources.counted?.whole)
const dated = computed(() => {
  const c = sources.counted
  if (!c)
    return bench.now?.sample
      ? t('bench.over', { sample: bench.now.sample.name })
      : t('bench.noSample')
  if (c.problem) return c.problem.title
  if (c.waiting) return t('counted.counting', { source: c.name, n: c.waiting }, c.waiting)
  const oldest = [c.whole, ...Object.values(c.blocks)].flatMap((x) => (x ? [x.at] : [])).sort()[0]
  if (!oldest) return t('counted.never')
  const day = new Date(oldest)
  return day.toDateString() === new Date().toDateString()
    ? t('counted.today', { source: c.name })
    : t('counted.on', { day: d(day, 'day'), source: c.name })
})
const gain = computed(() =>
  bench.ahead ? count(bench.ahead.caught) - count(bench.now?.caught) : 0,
)
const more = computed(() =>
  bench.ahead ? (bench.ahead.records ?? 0) - (bench.now?.records ?? 0) : 0,
)
/** What the source would find more or less with what is rested on; not known before it has been counted. */
const moreThere = computed(() =>
  bench.there && whole.value ? bench.there.records - whole.value.records : 0,
)
const signed = signedWith(n)
</script>

<template>
  <aside class="bench" :aria-label="t('bench.title')">
    <div class="head">
      <h2 class="sect">{{ t('bench.title') }}</h2>
      <span class="small cut" role="status" :title="dated">{{ dated }}</span>
      <button
        class="fold"
        :aria-label="t('bench.fold')"
        :title="t('bench.fold')"
        @click="emit('fold')"
      >
        ›
      </button>
    </div>
    <template v-if="shown">
      <div v-if="shown.caught.length" class="figure">
        <span class="big display" data-testid="caught">{{ count(shown.caught) }}</span>
        <span class="small"
          >{{ t('bench.caught', { of: shown.caught.length - away }) }}
          <b v-if="gain" class="gold">{{ signed(gain) }}</b></span
        >
      </div>
      <p v-else class="small none">{{ t('bench.noKeys') }}</p>
      <CatchStrip
        v-if="bench.now && shown.caught.length"
        :marks="stripMarks(bench.now.caught, bench.ahead?.caught, bench.now.notHere)"
        :label="t('bench.whole')"
      />
      <div v-if="sources.chosen" class="figure second">
        <button
          v-if="whole"
          class="open display"
          data-testid="to-read"
          :title="t('counted.made', { source: sources.chosen.name })"
          @click="made.show(bench.there ?? whole, t('bench.whole'), sources.chosen)"
        >
          {{ n((bench.there ?? whole).records, 'whole') }}
        </button>
        <span v-else class="display dim">{{ t('counted.notCounted') }}</span>
        <span class="small"
          >{{ t('bench.toRead') }}
          <b
            v-if="moreThere"
            class="gold"
            :title="t('counted.would', { source: sources.chosen.name })"
            >{{ signed(moreThere) }}</b
          ></span
        >
        <span v-if="shown.records !== undefined" class="small beside"
          ><button class="link" @click="reader.list({ kind: 'strategy' }, t('bench.toReadTitle'))">
            {{ t('counted.inSample', { n: n(shown.records, 'whole') }) }}</button
          >{{ ' ' }} <b v-if="more" class="gold">{{ signed(more) }}</b></span
        >
      </div>
      <div v-else-if="shown.records !== undefined" class="figure second">
        <button
          class="open display"
          data-testid="to-read"
          :title="t('bench.openRecords')"
          @click="reader.list({ kind: 'strategy' }, t('bench.toReadTitle'))"
        >
          {{ n(shown.records, 'whole') }}
        </button>
        <span class="small"
          >{{ t('bench.toRead') }} <b v-if="more" class="gold">{{ signed(more) }}</b></span
        >
      </div>
      <NarrowNote v-if="shown.narrow?.length" :narrow="shown.narrow" />
      <BenchBlocks />
      <BenchLimits v-if="shown.limits.length" :limits="shown.limits" />
      <template v-if="sources.chosen">
        <p v-if="away" class="small away">
          {{ t('counted.notHere', { n: away, source: sources.chosen.name }, away) }}
        </p>
        <button
          class="btn outline again"
          :disabled="!!sources.counted?.waiting && !sources.counted.problem"
          @click="sources.countAgain()"
        >
          {{ t('counted.again') }}
        </button>
      </template>
    </template>
    <p v-else-if="bench.error" class="small none">
      {{ t('bench.failed') }} {{ problem(bench.error) }}
    </p>
  </aside>
</template>

<style scoped>
.bench {
  border-left: 1px solid var(--line);
  background: var(--card);
  padding: 14px;
  overflow-y: auto;
}

.head {
  display: flex;
  align-items: baseline;
  gap: 8px;
}

.head .small {
  margin-left: auto;
}

.fold,
.open {
  border: 0;
  background: none;
  cursor: pointer;
  padding: 0 2px;
  color: inherit;
}

.fold {
  color: var(--ink-2);
  font-size: 15px;
}

.open:hover {
  text-decoration: underline;
}

.figure {
  display: flex;
  align-items: baseline;
  gap: 6px;
  margin-top: 8px;
}

.big {
  font-size: 30px;
  font-weight: 600;
  line-height: 1.15;
}

.second .open {
  font-size: 20px;
  font-weight: 600;
  padding: 0;
}

.second {
  flex-wrap: wrap;
  margin-bottom: 10px;
}

.beside {
  flex-basis: 100%;
}

.none {
  margin: 10px 0;
}

.away {
  margin-top: 10px;
}

.again {
  margin-top: 12px;
}

.dim {
  font-size: 20px;
  color: var(--ink-2);
}

.open:disabled {
  cursor: default;
}
</style>
