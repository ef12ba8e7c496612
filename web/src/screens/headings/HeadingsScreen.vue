<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import EmptyState from '@/parts/EmptyState.vue'
import VocabularyChoice from '@/parts/VocabularyChoice.vue'
import { offer } from '@/state/actions'
import { useReview } from '@/state/review'
import HeadingPanel from './HeadingPanel.vue'
import LeadList from './LeadList.vue'
import LookedThrough from './LookedThrough.vue'
import { useLooking } from './looking'
import { useThrough } from './through'

/** A lay word in, the heading that stands for it out: what it means, where it stands, what it brings, into a block. */
const { t } = useI18n()
const review = useReview()
const through = useThrough()

const field = ref<HTMLInputElement>()
const list = ref<InstanceType<typeof LeadList>>()
const panel = ref<InstanceType<typeof HeadingPanel>>()
const {
  typed,
  words,
  seeds,
  label,
  blockId,
  language,
  block,
  found,
  one,
  whole,
  taking,
  edits,
  look,
  lookIn,
  lookSeeds,
  take,
  park,
} = useLooking()

async function search() {
  await nextTick()
  field.value?.focus()
  field.value?.select()
}
const typing = (e: Event) =>
  e.target instanceof HTMLElement &&
  e.target.closest(
    'input:not([type=checkbox]):not([type=radio]), textarea, select, [contenteditable], dialog, .v-overlay',
  )
/** Single letters and numbers act only while the list or the tree has the focus. */
const listed = (e: Event) =>
  e.target instanceof HTMLElement && e.target.closest('[role=listbox], [role=tree]')
useEventListener(document, 'keydown', (e: KeyboardEvent) => {
  if (e.ctrlKey || e.metaKey || e.altKey || typing(e)) return
  if (e.key === '/') {
    e.preventDefault()
    void search()
  } else if (!listed(e)) return
  else if (/^[1-9]$/.test(e.key) && whole.value) {
    const into = review.document.blocks[Number(e.key) - 1]
    if (into) take(into)
  } else if (e.key.toLowerCase() === 'p' && whole.value) park()
})
function fromField(e: KeyboardEvent) {
  if (e.key === 'ArrowDown' || e.key === 'Enter') {
    e.preventDefault()
    list.value?.focus()
  }
}
offer(() => [
  { name: t('headings.key.search'), hint: '/', go: search },
  ...review.document.blocks
    .filter((b) => b.seeds.length)
    .map((b) => ({ name: t('headings.seeds', { block: b.name }), go: () => lookSeeds(b.id) })),
])

const keys = computed(() => [
  ['/', t('headings.key.search')],
  ['↑ ↓', t('headings.key.move')],
  ['→ ←', t('headings.key.into')],
  ['Enter', t('headings.key.enter')],
  ['Space', t('headings.key.tick')],
  ['1 … 9', t('headings.key.take')],
  ...(through.other ? [] : [['P', t('headings.key.park')]]),
])
</script>

<template>
  <div class="screen">
    <EmptyState
      v-if="!review.vocabulary"
      :title="t('headings.emptyTitle')"
      :text="t('headings.emptyText')"
    >
      <VocabularyChoice /><router-link
        class="btn outline"
        :to="{ name: 'samples', params: { review: review.id } }"
        >{{ t('vocabulary.bring') }}</router-link
      >
    </EmptyState>
    <template v-else>
      <div class="row top">
        <input
          ref="field"
          v-model="typed"
          class="field mono"
          type="search"
          maxlength="200"
          :aria-label="t('headings.search')"
          :placeholder="t('headings.placeholder')"
          @keydown="fromField"
        />
        <LookedThrough
          :found="words.length ? found.data.value : undefined"
          :own="review.vocabulary.name"
        />
        <span class="grow" />
        <template v-for="b in review.document.blocks" :key="b.id">
          <button
            v-if="b.seeds.length"
            class="btn bare"
            :aria-pressed="seeds && b.id === block?.id"
            :title="b.seeds.join(', ')"
            @click="lookSeeds(b.id)"
          >
            {{ t('headings.seeds', { block: b.name }) }}
          </button>
        </template>
        <select
          v-if="(found.data.value?.languages.length ?? 0) > 1"
          v-model="language"
          class="field language"
          :aria-label="t('headings.language')"
        >
          <option value="">{{ through.vocabulary?.language || '–' }}</option>
          <option
            v-for="l in found.data.value!.languages.filter(
              (x) => x !== through.vocabulary?.language,
            )"
            :key="l"
            :value="l"
          >
            {{ l }}
          </option>
        </select>
      </div>
      <div class="parts">
        <LeadList
          ref="list"
          :found="words.length ? found.data.value : undefined"
          :pending="found.isPending.value"
          :words="words"
          :seeds="seeds ? block?.name : undefined"
          :selected="whole?.heading ?? label"
          :keys="keys"
          @look="look"
          @into="panel?.focus()"
        />
        <HeadingPanel
          v-if="whole"
          ref="panel"
          :whole="whole"
          :block="block"
          :taking="taking"
          :edits="edits"
          :language="language"
          @look="look"
          @look-in="lookIn"
          @out="list?.focus()"
          @take="take()"
          @park="park"
          @block="blockId = $event"
        />
        <p v-else-if="one.error.value && label" class="small" role="alert">
          {{ t('headings.none') }}
        </p>
        <EmptyState
          v-else-if="!label"
          :title="t('headings.startTitle')"
          :text="t('headings.start')"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.screen {
  container: headings / inline-size;
  display: flex;
  flex-direction: column;
  min-height: 100%;
}

@media (min-width: 1000px) {
  .screen {
    height: 100%;
    min-height: 0;
  }
}

.top {
  margin-bottom: 10px;
  flex-wrap: wrap;
}

.top .field {
  width: 300px;
}

.top .language {
  width: auto;
}

.top [aria-pressed='true'] {
  text-decoration: underline;
}

.parts {
  display: grid;
  grid-template-columns: 236px minmax(0, 1fr);
  gap: 18px;
  flex: 1;
  min-height: 0;
}

@container headings (max-width: 640px) {
  .parts {
    display: block;
    flex: none;
  }

  .parts > :deep(.leads) {
    max-height: 260px;
    margin-bottom: 14px;
  }

  .parts > :deep(.leads .keys) {
    display: none;
  }

  .parts > :deep(.panel) {
    overflow: visible;
  }
}
</style>
