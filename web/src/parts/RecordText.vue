<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Chip, Facet, MarkedRecord } from '@/api/client'
import { useDecide } from '@/state/decide'
import { useReview } from '@/state/review'
import BlockStamp from './BlockStamp.vue'
import MarkedText from './MarkedText.vue'
import RecordCites from './RecordCites.vue'
import { useReader } from './reader'
import { useTaking } from './taking'

/** One record with the words of the blocks marked; words, headings and keywords can be taken from it. */
const props = defineProps<{ record: MarkedRecord }>()

const { t } = useI18n()
const review = useReview()
const reader = useReader()
const { termOf, add, decide } = useDecide()
const text = ref<HTMLElement>()
const { marked, takeWords, parkAll } = useTaking(
  text,
  computed(() => props.record),
)

function itemOf(facet: Facet, chip: Chip) {
  return { facet, item: chip.label, key: chip.key }
}

const byline = computed(() =>
  [
    props.record.authors.slice(0, 6).join('; '),
    props.record.journal,
    props.record.year || undefined,
  ]
    .filter(Boolean)
    .join(' · '),
)
</script>

<template>
  <article ref="text" tabindex="0" :aria-label="t('reader.record')">
    <h3 class="display">
      <MarkedText :pieces="record.title" /><template v-if="!record.title.length">{{
        t('record.noTitle')
      }}</template>
    </h3>
    <p class="small">
      {{ byline
      }}<template v-if="record.key">
        · <b>{{ t('record.key') }}</b></template
      ><template v-if="!record.indexed"> · {{ t('record.unindexed') }}</template>
    </p>
    <p class="abstract">
      <MarkedText :pieces="record.abstract" /><em v-if="!record.abstract.length" class="small">{{
        t('record.noAbstract')
      }}</em>
    </p>
    <div
      v-for="(o, i) in record.others"
      :key="i"
      class="other"
      :lang="o.language.slice(0, 2) || undefined"
    >
      <h4 class="sect">
        {{ o.title ? t('recordField.otherTitles') : t('recordField.otherAbstracts') }}
        <template v-if="o.language">({{ o.language }})</template>
      </h4>
      <p>
        <b>{{ o.title }}</b>
      </p>
      <p>{{ o.abstract }}</p>
    </div>
    <div
      v-if="marked"
      class="take card"
      role="group"
      :aria-label="t('take.selection', { words: marked })"
    >
      <span class="mono cut">{{ marked }}</span>
      <button
        v-for="b in review.document.blocks"
        :key="b.id"
        class="btn outline"
        @click="takeWords(b)"
      >
        {{ t('act.addTo', { block: b.name }) }}
      </button>
      <button class="btn bare" @click="takeWords()">{{ t('act.park') }}</button>
    </div>
    <p v-else class="small">
      {{ t('take.hint') }}
      <button
        v-if="record.headings.length + record.keywords.length"
        class="link small"
        @click="parkAll"
      >
        {{ t('take.all') }}
      </button>
    </p>
    <template
      v-for="group in [
        { facet: 'headings' as Facet, chips: record.headings },
        { facet: 'keywords' as Facet, chips: record.keywords },
      ]"
      :key="group.facet"
    >
      <h4 v-if="group.chips.length" class="sect">{{ t(`record.${group.facet}`) }}</h4>
      <div class="chips">
        <v-menu v-for="(c, i) in group.chips" :key="i">
          <template #activator="{ props: menu }">
            <button v-bind="menu" class="chip" :class="{ heading: group.facet === 'headings' }">
              <span v-if="c.central" class="star" :title="t('record.central')">★</span>{{ c.label }}
              <em v-if="c.qualifiers?.length">/ {{ c.qualifiers.join(' / ') }}</em>
              <BlockStamp v-for="b in c.blocks" :key="b" :name="b" :size="15" />
            </button>
          </template>
          <v-list>
            <v-list-item
              v-for="b in review.document.blocks"
              :key="b.id"
              :title="t('act.addTo', { block: b.name })"
              @click="add(b, termOf(itemOf(group.facet, c)), itemOf(group.facet, c))"
            />
            <v-list-item
              :title="t('act.park')"
              @click="decide([itemOf(group.facet, c)], 'parked')"
            />
            <v-list-item
              v-if="group.facet === 'headings' && review.vocabulary"
              :title="t('headings.look', { heading: c.label })"
              :to="{
                name: 'headings',
                params: { review: review.id },
                query: { label: c.label },
              }"
              @click="reader.open = false"
            />
          </v-list>
        </v-menu>
      </div>
    </template>
    <RecordCites :record="record" />
    <p class="small ids">
      {{
        [
          record.recordId,
          record.doi && `DOI ${record.doi}`,
          record.types.join(', '),
          record.languages.join(', '),
          record.substances.join(', '),
        ]
          .filter(Boolean)
          .join(' · ')
      }}
    </p>
  </article>
</template>

<style scoped>
article {
  flex: 1;
  min-width: 0;
  overflow-y: auto;
  padding: 16px 20px;
}

h3 {
  font-size: 18px;
  line-height: 1.3;
  font-weight: 600;
  margin-bottom: 3px;
}

.abstract {
  margin: 12px 0 6px;
  line-height: 1.6;
  max-width: 68ch;
  overflow-wrap: anywhere;
}

h4 {
  margin: 14px 0 6px;
}

.other {
  max-width: 68ch;
  overflow-wrap: anywhere;
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.chip {
  text-align: left;
}

.chip.heading {
  font-weight: 600;
}

.chip em {
  font-weight: 400;
}

.star {
  color: var(--gold-deep);
  font-size: 10px;
}

.ids {
  margin-top: 16px;
}

.take {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 6px 10px;
  position: sticky;
  bottom: 0;
}
</style>
