<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { type HeadingWhole, type Term } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useReader } from '@/parts/reader'
import { newTerm } from '@/state/review'
import type { How } from './choice'

/** How a heading is taken, and what each way to narrow it would lose, before it is set. */
const how = defineModel<How>('how', { required: true })
const central = defineModel<boolean>('central', { required: true })
const qualifiers = defineModel<string[]>('qualifiers', { required: true })
const props = defineProps<{ whole: HeadingWhole; without: string[] }>()
const { t, n } = useI18n()
const reader = useReader()

const below = computed(
  () => props.whole.nodes.find((x) => x.label === props.whole.heading)?.below ?? 0,
)
/** The heading as it would be taken, without what narrows it. */
const plain = computed<Term>(() =>
  newTerm({
    kind: 'heading',
    heading: props.whole.heading,
    id: 'plain',
    narrower: how.value !== 'alone',
    without: how.value === 'some' ? props.without : [],
  }),
)
const asked = useFigure(figures.headingPrice, () => plain.value, { keep: true })
const price = computed(() => asked.data.value ?? props.whole.price)

const refused = (q: string) => props.whole.allows && !props.whole.allows.includes(q)

function lost(as: Partial<Term>, said: string) {
  reader.list(
    {
      kind: 'less',
      of: { kind: 'term', term: plain.value },
      less: { kind: 'term', term: { ...plain.value, ...as } },
    },
    t('headings.lostTitle', { heading: props.whole.heading, how: said }),
  )
}
function having(q: string) {
  reader.list(
    { kind: 'term', term: { ...plain.value, qualifiers: [q] } },
    `${props.whole.heading} / ${q}`,
  )
}
function toggle(q: string) {
  qualifiers.value = qualifiers.value.includes(q)
    ? qualifiers.value.filter((x) => x !== q)
    : [...qualifiers.value, q]
}
</script>

<template>
  <section :aria-label="t('headings.takeIt')">
    <h3 class="sect">{{ t('headings.takeIt') }}</h3>
    <label v-if="below" class="row"
      ><input v-model="how" type="radio" name="how" value="all" />{{
        t('headings.all', { n: n(below, 'whole') }, below)
      }}
      <b v-if="whole.counted">{{ n(whole.price.records, 'whole') }}</b></label
    >
    <label class="row"
      ><input v-model="how" type="radio" name="how" value="alone" />{{ t('headings.only') }}
      <b v-if="whole.counted">{{ n(whole.alone.records, 'whole') }}</b></label
    >
    <label v-if="below" class="row"
      ><input v-model="how" type="radio" name="how" value="some" />{{ t('headings.some') }}
      <b v-if="how === 'some' && whole.counted">{{ n(price.records, 'whole') }}</b></label
    >
    <div class="row line">
      <label class="row"><input v-model="central" type="checkbox" />{{ t('headings.main') }}</label>
      <button
        v-if="price.central.records || price.central.keys"
        class="link miss"
        @click="lost({ central: true }, t('headings.main'))"
      >
        {{ t('headings.lost', { n: n(price.central.records, 'whole') })
        }}<template v-if="price.central.keys"
          >, {{ t('headings.lostKeys', { n: price.central.keys }, price.central.keys) }}</template
        >
      </button>
    </div>
    <template v-if="price.qualifiers.length">
      <h4 class="small">
        {{ t('headings.qualifiers')
        }}<span v-if="whole.allows" class="allows">{{
          whole.allows.length
            ? t('headings.allows', { qualifiers: whole.allows.join(', ') })
            : t('headings.allowsNone')
        }}</span>
      </h4>
      <div v-for="q in price.qualifiers" :key="q.qualifier" class="row line">
        <label class="row"
          ><input
            type="checkbox"
            :checked="qualifiers.includes(q.qualifier)"
            @change="toggle(q.qualifier)"
          />{{ q.qualifier
          }}<em
            v-if="refused(q.qualifier)"
            class="small"
            :title="t('headings.notAllowedTip', { qualifier: q.qualifier, heading: whole.heading })"
            >{{ t('headings.notAllowed') }}</em
          ></label
        ><button class="link small" @click="having(q.qualifier)">
          {{ n(q.records, 'whole') }}
        </button>
        <button
          v-if="q.lost.records || q.lost.keys"
          class="link miss"
          @click="lost({ qualifiers: [q.qualifier] }, q.qualifier)"
        >
          {{ t('headings.lost', { n: n(q.lost.records, 'whole') })
          }}<template v-if="q.lost.keys"
            >, {{ t('headings.lostKeys', { n: q.lost.keys }, q.lost.keys) }}</template
          >
        </button>
      </div>
    </template>
  </section>
</template>

<style scoped>
.allows {
  margin-left: 6px;
  font-weight: 400;
}

em {
  color: var(--miss);
  font-style: normal;
}

section {
  display: grid;
  gap: 4px;
  align-content: start;
}

.row {
  gap: 6px;
}

.line {
  flex-wrap: wrap;
  row-gap: 0;
}

h4 {
  font-weight: 600;
  margin: 3px 0 0;
}

.miss {
  color: var(--miss);
  font-size: 12px;
}
</style>
