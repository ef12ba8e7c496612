<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Tally, TallyRow } from '@/api/client'
import { useReader } from '@/parts/reader'
import { useRowsInSight } from '@/parts/rowsInSight'
import { useReview } from '@/state/review'
import HandSearchList from './HandSearchList.vue'
import { journalKey as key } from './journals'

/** Journals: how much of the topic each holds, and the list of those that are read by hand. */
const props = defineProps<{ tally: Tally }>()

const { t, n } = useI18n()
const review = useReview()
const reader = useReader()

const rows = computed(() =>
  [...props.tally.rows].sort((a, b) => b.records - a.records || (a.item < b.item ? -1 : 1)),
)
const half = computed(() => props.tally.half ?? 0)
const most = computed(() => rows.value[0]?.records ?? 1)
const listed = computed(() => review.document.handSearch ?? [])
const on = (r: TallyRow) => listed.value.some((h) => h.journal === key(r))
const scroller = ref<HTMLElement>()
const { drawn, whole } = useRowsInSight(scroller, () => rows.value.length, 30)

function toggle(r: TallyRow) {
  review.change(
    { key: on(r) ? 'notHandSearch' : 'handSearch', params: { journal: r.item } },
    { edits: [{ op: 'handSearch', journal: key(r), name: r.item, on: !on(r) }] },
  )
}
const records = (r: TallyRow) =>
  reader.list({ kind: 'item', facet: 'journals', item: r.item }, r.item)
</script>

<template>
  <div class="from-above">
    <div class="main">
      <p v-if="half" class="small">{{ t('journals.half', { n: half }, half) }}</p>
      <div class="line head" role="presentation">
        <span>{{ t('shape.item.journals') }}</span><span>{{ t('figure.records') }}</span
        ><span :title="t('journals.share')">{{ t('shape.share') }}</span
        ><span v-if="tally.hasKeys" :title="t('journals.keys')">{{ t('figure.keys') }}</span
        ><span :title="t('journals.unindexedTip')">{{ t('journals.unindexed') }}</span
        ><span>{{ t('journals.cumulated') }}</span>
      </div>
      <div
        ref="scroller"
        class="scroller"
        tabindex="0"
        role="list"
        :aria-label="t('facet.journals')"
      >
        <div role="presentation" :style="whole">
          <div
            v-for="(at, place) in drawn"
            :key="place"
            role="listitem"
            class="line"
            :class="{ half: at + 1 === half, on: on(rows[at]) }"
          >
            <span class="name"
              ><button
                class="mark"
                :aria-pressed="on(rows[at])"
                :aria-label="
                  t(on(rows[at]) ? 'journals.remove' : 'journals.add', { journal: rows[at].item })
                "
                @click="toggle(rows[at])"
              >
                {{ on(rows[at]) ? '✓' : '+' }}</button
              ><span class="cut" :title="rows[at].item">{{ rows[at].item }}</span></span
            >
            <span
              ><i :style="{ width: `${(rows[at].records / most) * 40}px` }" /><button
                class="link"
                @click="records(rows[at])"
              >
                {{ n(rows[at].records, 'whole') }}
              </button></span
            >
            <span>{{ n(rows[at].share, 'share') }}</span>
            <span v-if="tally.hasKeys">{{ rows[at].keys }}</span>
            <span
              ><button
                v-if="rows[at].unindexed"
                class="link"
                :aria-label="
                  t('shape.bareOf', { n: n(rows[at].unindexed, 'whole'), item: rows[at].item })
                "
                @click="
                  reader.list(
                    { kind: 'aspect', facet: 'journals', item: rows[at].item, aspect: 'bare' },
                    t('looked.bare', { item: rows[at].item }),
                  )
                "
              >
                {{ n(rows[at].bare ?? 0, 'share') }}</button
              ><template v-else>{{ n(0, 'share') }}</template></span
            >
            <span>{{ n(rows[at].upTo ?? 0, 'share') }}</span>
          </div>
        </div>
      </div>
    </div>
    <HandSearchList :tally="tally" />
  </div>
</template>

<style scoped>
.main {
  overflow: hidden;
  display: flex;
  flex-direction: column;
  min-height: 0;
}

.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 94px 56px 46px 76px 76px;
  align-items: center;
  height: 30px;
  border-bottom: 1px solid var(--line-soft);
}

.line > span {
  text-align: right;
  padding: 0 6px;
  white-space: nowrap;
}

.line > span:first-child {
  text-align: left;
}

.head {
  font: 600 11.5px var(--ui);
  color: var(--ink-2);
  padding-right: 10px;
}

.scroller {
  flex: 1;
  min-height: 200px;
  overflow-y: auto;
}

@media (max-width: 820px) {
  .scroller {
    flex: none;
    height: 310px;
  }
}

.line.half {
  border-bottom: 2px solid var(--gold-bright);
}

.line.on .name {
  font-weight: 650;
}

.name {
  display: flex;
  align-items: center;
  gap: 7px;
  min-width: 0;
}

.mark {
  flex: none;
  width: 20px;
  height: 20px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--white);
  cursor: pointer;
  line-height: 1;
}

.mark[aria-pressed='true'] {
  background: var(--plum);
  border-color: var(--plum);
  color: #fff;
}

i {
  display: inline-block;
  height: 7px;
  background: var(--plum);
  margin-right: 6px;
  border-radius: 1px;
}
</style>
