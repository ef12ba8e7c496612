<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import { api, ask } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import EmptyState from '@/parts/EmptyState.vue'
import { useSaving } from '@/parts/files/saving'
import WithTip from '@/parts/WithTip.vue'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useShelf } from '@/state/shelf'
import { useSources } from '@/state/sources'
import HalvesPart from './HalvesPart.vue'
import HeldBack from './HeldBack.vue'
import MissedDialog from './MissedDialog.vue'
import PlanPanel from './PlanPanel.vue'
import StudyPanel from './StudyPanel.vue'

const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const route = useRoute()
const problem = useProblem()
const saving = useSaving()
const shelf = useShelf()

const coverage = useQuery({
  queryKey: computed(() => [
    'coverage',
    review.id,
    review.revision,
    review.keysStamp,
    review.look.source,
  ]),
  queryFn: () => ask(api.GET('/api/reviews/{review}/coverage', { params: review.asked })),
  placeholderData: keepPreviousData,
})
const missedFirst = ref(true)
const planned = ref(false)
const estimating = ref(false)
const halved = computed(() => review.document.halves !== undefined)
const rows = computed(() => {
  const byId = new Map((coverage.data.value?.studies ?? []).map((s) => [s.id, s]))
  const all = review.keyStudies.flatMap((k) => {
    const s = byId.get(k.id)
    return s ? [{ ...k, ...s }] : []
  })
  return missedFirst.value
    ? [
        ...all.filter((s) => !s.caught && !s.notHere),
        ...all.filter((s) => s.caught),
        ...all.filter((s) => s.notHere),
      ]
    : all
})
const missed = computed(() => rows.value.filter((s) => !s.caught && !s.notHere))
const searched = computed(() => review.document.blocks.map((b, i) => ({ ...b, i })))
const recall = computed(() => coverage.data.value?.recall)

const chosen = ref<number>()
watch(
  () => route.query.study,
  (id) => id && (chosen.value = Number(id)),
  { immediate: true },
)
watch(
  rows,
  (list) => {
    // Before the studies are there, whichever the address names stays.
    if (list.length && !list.some((s) => s.id === chosen.value)) chosen.value = list[0]!.id
  },
  { immediate: true },
)

function onKey(e: KeyboardEvent) {
  if (e.key.toLowerCase() === 'k' && !e.ctrlKey && !e.metaKey && !e.altKey) {
    const study = rows.value.find((s) => s.id === chosen.value)
    if (study) shelf.toggle(study.record, study.title)
  }
  const by = { ArrowDown: 1, ArrowUp: -1 }[e.key]
  if (!by) return
  e.preventDefault()
  const i = rows.value.findIndex((s) => s.id === chosen.value)
  const next = rows.value[Math.min(Math.max(i + by, 0), rows.value.length - 1)]
  chosen.value = next?.id
  document.getElementById(`study-${next?.id}`)?.scrollIntoView({ block: 'nearest' })
}
// Without a block there is no column for one: repeat(0, …) would be no list of columns at all.
const grid = computed(() => ({
  gridTemplateColumns: ['minmax(0, 1fr)', ...searched.value.map(() => '46px'), '54px', '42px'].join(
    ' ',
  ),
}))
</script>

<template>
  <div class="screen">
    <EmptyState
      v-if="!review.keyStudies.length"
      :title="t('coverage.emptyTitle')"
      :text="t('coverage.emptyText')"
    >
      <router-link class="btn" :to="{ name: 'question', params: { review: review.id } }">{{
        t('keys.bring')
      }}</router-link>
    </EmptyState>
    <p v-else-if="coverage.error.value && !coverage.data.value" class="wrong" role="alert">
      {{ problem(coverage.error.value) }}
    </p>
    <template v-else-if="recall">
      <div class="row head">
        <div>
          <div class="big display">
            {{ recall.caught }}
            <span class="small">{{ t('coverage.caught', { of: recall.of }) }}</span>
          </div>
          <div class="small">
            {{
              t('coverage.recall', {
                share: n(recall.share, 'share'),
                low: Math.round(recall.low * 100),
                high: n(recall.high, 'share'),
              })
            }}
          </div>
        </div>
        <HalvesPart
          v-if="halved"
          :build="coverage.data.value?.build"
          :test="coverage.data.value?.test"
        />
        <span class="grow" />
        <div class="row acts">
          <WithTip v-if="review.keyStudies.length > 1" :text="t('halves.tip')">
            <template #default="{ describedBy }"
              ><button
                class="btn bare"
                :aria-describedby="describedBy"
                @click="review.split(!halved)"
              >
                {{ t(halved ? 'halves.join' : 'halves.split') }}
              </button></template
            >
          </WithTip>
          <button v-if="review.samples.length" class="btn bare" @click="estimating = true">
            {{ t('missed.open') }}
          </button>
          <button
            v-if="missed.length"
            class="btn bare"
            @click="
              saving.save(
                { kind: 'picked', ids: missed.map((s) => s.record) },
                t('save.missedName'),
                missed.length,
              )
            "
          >
            {{ t('save.missed') }}…
          </button>
          <button class="chip" :aria-pressed="missedFirst" @click="missedFirst = !missedFirst">
            {{ missedFirst ? t('coverage.missedFirst') : t('coverage.asBrought') }}
          </button>
          <button
            class="btn"
            :class="{ outline: !planned }"
            :aria-pressed="planned"
            @click="planned = !planned"
          >
            {{ t('plan.title') }}
          </button>
        </div>
      </div>
      <p v-if="!searched.some((b) => b.searched && !b.negated)" class="none" role="status">
        {{ t(searched.length ? 'coverage.noneSearched' : 'coverage.noBlocks') }}
        <router-link
          class="btn outline"
          :to="{ name: 'question', params: { review: review.id } }"
          >{{ t('question.concepts') }}</router-link
        >
      </p>
      <MissedDialog v-model="estimating" />
      <div class="two">
        <div class="left">
          <div class="g h" :style="grid">
            <span>{{ t('keys.study') }}</span>
            <span v-for="b in searched" :key="b.id" class="c" :title="b.concept"
              ><BlockStamp :block="b.id"
            /></span>
            <span class="c">{{ t('coverage.limits') }}</span><span class="c">{{
              t('coverage.all')
            }}</span>
          </div>
          <div
            class="studies"
            role="listbox"
            tabindex="0"
            :aria-label="t('coverage.studies')"
            :aria-activedescendant="chosen ? `study-${chosen}` : undefined"
            @keydown="onKey"
          >
            <div
              v-for="s in rows"
              :id="`study-${s.id}`"
              :key="s.id"
              class="g"
              :class="{ sel: s.id === chosen, away: s.notHere }"
              :style="grid"
              role="option"
              :aria-selected="s.id === chosen"
              @click="((chosen = s.id), (planned = false))"
            >
              <span class="who"
                ><span class="cut">{{ s.title || t('record.noTitle') }}</span
                ><span class="small">{{
                  [
                    [s.byline, s.year || undefined].filter(Boolean).join(' '),
                    s.half && t(`halves.${s.half}`),
                    review.shelf.has(s.record) && t('shelf.on'),
                    s.notHere && t('holding.notHere', { source: sources.chosen?.name ?? '' }),
                  ]
                    .filter(Boolean)
                    .join(' · ')
                }}</span></span
              >
              <span v-for="b in searched" :key="b.id" class="c">
                <i
                  v-if="s.blocks[b.i]"
                  class="ok"
                  :class="{ dim: !b.searched, bad: b.negated }"
                  role="img"
                  :aria-label="t('coverage.by', { block: b.name, n: s.blocks[b.i] }, s.blocks[b.i])"
                  >{{ s.blocks[b.i] }}</i
                >
                <i
                  v-else
                  :class="b.searched && !b.negated && !s.notHere ? 'no' : 'off'"
                  role="img"
                  :aria-label="t('coverage.notBy', { block: b.name })"
                />
              </span>
              <template v-if="s.notHere"
                ><span /><span class="c"
                  ><i class="away" role="img" :aria-label="t('strip.away')" /></span
              ></template>
              <template v-else
                ><span class="c"
                  ><i
                    :class="s.limits ? 'ok' : 'no'"
                    role="img"
                    :aria-label="t(s.limits ? 'coverage.inside' : 'coverage.outside')"
                /></span>
                <span class="c"
                  ><i
                    :class="s.caught ? 'ok' : 'no'"
                    role="img"
                    :aria-label="t(s.caught ? 'strip.caught' : 'strip.missed')" /></span
              ></template>
            </div>
          </div>
          <HeldBack v-if="coverage.data.value" :held="coverage.data.value.heldBack" />
        </div>
        <PlanPanel v-if="planned" @study="((chosen = $event), (planned = false))" />
        <StudyPanel
          v-else-if="chosen"
          :half="rows.find((s) => s.id === chosen)?.half"
          :study="chosen"
          :held-back-by="rows.find((s) => s.id === chosen)?.heldBackBy ?? []"
          :caught="rows.find((s) => s.id === chosen)?.caught ?? false"
          :away="rows.find((s) => s.id === chosen)?.notHere"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.screen {
  height: 100%;
  display: flex;
  flex-direction: column;
}

.head {
  align-items: flex-end;
  flex-wrap: wrap;
  gap: 6px 22px;
}

.big {
  font-size: 26px;
  font-weight: 600;
  line-height: 1.2;
}

.none {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  margin-top: 10px;
  padding: 8px 12px;
  border: 1px dashed var(--sand);
  border-radius: var(--radius);
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 16px;
  margin-top: 12px;
  flex: 1;
  min-height: 0;
}

.left {
  display: flex;
  flex-direction: column;
  min-height: 0;
}

.studies {
  overflow-y: auto;
  flex: 1;
  min-height: 80px;
  outline-offset: -2px;
}

.g {
  display: grid;
  align-items: center;
  border-bottom: 1px solid var(--line-soft);
  cursor: default;
}

.g > * {
  padding: 3px 6px;
}

.g.h {
  font: 600 11.5px var(--ui);
  color: var(--ink-2);
  border-bottom-color: var(--line);
}

.g.sel {
  background: var(--gold-soft);
}

.who {
  min-width: 0;
}

.who > span {
  display: block;
}

.c {
  display: grid;
  place-items: center;
}

.ok,
.no,
.off {
  width: 15px;
  height: 15px;
  border-radius: 3px;
  font: 600 10px/15px var(--ui);
  text-align: center;
}

.ok {
  background: var(--ink);
  color: #fff;
}

.ok.dim {
  background: none;
  color: var(--ink-2);
  border: 1px dashed var(--ink-3);
  line-height: 13px;
}

.ok.bad {
  background: var(--miss);
}

.no {
  border: 2px solid var(--miss);
}

.off {
  border: 1px dashed var(--ink-3);
}

.c .away {
  width: 15px;
  height: 15px;
  border-radius: 3px;
  border: 1px solid #c9bfa9;
  background: repeating-linear-gradient(135deg, #c9bfa9 0 1.6px, transparent 1.6px 3.6px);
}

.wrong {
  color: var(--miss);
}

@media (max-width: 820px) {
  .screen {
    overflow-y: auto;
  }

  .two {
    grid-template-columns: minmax(0, 1fr);
    flex: none;
  }

  .studies {
    max-height: 320px;
  }
}
</style>
