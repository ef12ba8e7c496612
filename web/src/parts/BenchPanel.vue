<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { limitText } from '@/parts/limitText'
import { stripMarks, useBench } from '@/state/bench'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import BlockStamp from './BlockStamp.vue'
import CatchStrip from './CatchStrip.vue'
import NarrowNote from './NarrowNote.vue'
import { useReader } from './reader'
import { useMade } from './made'

const { t, n, d } = useI18n()
const review = useReview()
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
const signed = (x: number) => (x > 0 ? `+${n(x, 'whole')}` : `−${n(-x, 'whole')}`)

const blocks = computed(() =>
  review.document.blocks.map((b) => {
    const now = bench.now?.blocks.find((x) => x.id === b.id)
    const ahead = bench.ahead?.blocks.find((x) => x.id === b.id)
    const on = b.terms.filter((term) => term.on)
    const headings = on.filter((term) => term.kind === 'heading').length
    return {
      ...b,
      records: (ahead ?? now)?.records,
      there: sources.counted?.blocks[b.id],
      changed: ahead && now && ahead.records !== now.records,
      marks: now ? stripMarks(now.caught, ahead?.caught, bench.now?.notHere) : [],
      words: on.length - headings,
      headings,
      proposal: bench.ahead && bench.resting?.block === b.id ? bench.resting.label : '',
    }
  }),
)

function limitOf(kind: string): string {
  // A limit that is only rested on stands in no document yet.
  const ahead = bench.resting?.edits.flatMap((op) => (op.op === 'limits' ? op.limits : [])) ?? []
  const l =
    ahead.find((x) => x.kind === kind) ?? review.document.limits.find((x) => x.kind === kind)
  return l ? limitText(l, t) : ''
}
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
      <ul class="blocks">
        <li v-for="b in blocks" :key="b.id">
          <div class="hd">
            <BlockStamp :block="b.id" /><span class="name">{{
              b.concept || t('block.unnamed')
            }}</span>
            <button
              v-if="sources.chosen"
              class="open"
              :disabled="!b.there"
              :title="t('counted.made', { source: sources.chosen.name })"
              @click="b.there && made.show(b.there, b.concept, sources.chosen)"
            >
              {{ b.there ? n(b.there.records, 'whole') : t('counted.notCounted')
              }}<sup v-if="b.there?.notes.length">*</sup>
            </button>
            <button
              v-else-if="b.records !== undefined"
              class="open"
              :class="{ gold: b.changed }"
              :title="t('bench.openRecords')"
              @click="reader.list({ kind: 'block', block: b.id }, b.concept)"
            >
              {{ n(b.records, 'whole') }}
            </button>
          </div>
          <p class="small">
            {{
              t('bench.terms', {
                words: t('bench.words', b.words),
                headings: t('bench.headings', b.headings),
              })
            }}<template v-if="b.negated"> · {{ t('bench.negated') }}</template
            ><template v-if="!b.searched"> · {{ t('bench.notSearched') }}</template
            ><b v-if="b.proposal" class="gold"> · {{ b.proposal }}</b>
          </p>
          <CatchStrip v-if="b.marks.length" :marks="b.marks" :label="b.concept" />
        </li>
      </ul>
      <dl v-if="shown.limits.length" class="limits">
        <div v-for="l in shown.limits" :key="l.kind">
          <dt class="small">{{ t('bench.limit') }}</dt>
          <dd class="cut" :title="limitOf(l.kind)">{{ limitOf(l.kind) }}</dd>
          <dd v-if="l.takenAway !== undefined">{{ l.takenAway ? signed(-l.takenAway) : '0' }}</dd>
        </div>
      </dl>
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
    <p v-else-if="bench.error" class="small none">{{ t('bench.failed') }}</p>
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

.blocks {
  border-top: 1px solid var(--line-soft);
}

.blocks li {
  padding: 11px 0 12px;
  border-bottom: 1px solid var(--line-soft);
}

.hd {
  display: flex;
  align-items: center;
  gap: 8px;
}

.hd .name {
  font-weight: 600;
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}

.hd .open {
  color: var(--ink-2);
}

.hd .open.gold {
  color: var(--gold-deep);
}

.blocks p {
  margin-top: 2px;
}

.limits {
  padding-top: 10px;
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

sup {
  color: var(--gold-deep);
}

.open:disabled {
  cursor: default;
}

.limits div {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 8px;
  align-items: baseline;
  padding: 3px 0;
}

dd {
  margin: 0;
}
</style>
