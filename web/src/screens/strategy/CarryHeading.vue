<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { StandIns, TypedStrategy } from '@/api/client'
import { labelKey } from '@/state/labelKey'

/** One heading in the vocabulary of another source: what was taken to stand for it, and what may. */
const props = defineProps<{
  heading: NonNullable<TypedStrategy['carry']>['headings'][number]
  /** What records of the source say, where there are any. */
  said?: StandIns['headings'][number]
  /** What the source itself finds for a heading, where it was asked. */
  there: (label: string) => number | undefined
  source?: string
}>()
const emit = defineEmits<{ decide: [stands: string, forget: boolean] }>()
const { t, n } = useI18n()

const same = (a: string, b: string) => labelKey(a) === labelKey(b)
const byRecords = (label: string) => props.said?.found.find((f) => same(f.heading, label))
/** What is stated comes before what records say; each once, and none that was taken. */
const proposals = computed(() =>
  [
    ...props.heading.proposals.map((p) => ({ ...p, found: byRecords(p.heading) })),
    ...(props.said?.found ?? [])
      .filter((f) => !props.heading.proposals.some((p) => same(p.heading, f.heading)))
      .map((f) => ({ heading: f.heading, via: '', matched: '', scopeNote: f.scopeNote, found: f })),
  ].filter((p) => !props.heading.stands.some((s) => same(s, p.heading))),
)
const decided = computed(() => props.heading.stands.length > 0 || props.heading.declined)
</script>

<template>
  <li>
    <div class="row">
      <b class="own">{{ heading.heading }}</b>
      <span v-if="heading.records !== undefined" class="small">{{
        t('carry.records', { n: n(heading.records, 'whole') }, heading.records)
      }}</span>
    </div>
    <div v-for="s in heading.stands" :key="s" class="row taken">
      <span class="chip"
        ><b>{{ s }}</b></span
      >
      <span class="small grow">{{ t('carry.stands') }}</span>
      <span v-if="there(s) !== undefined" class="small num">{{
        t('carry.there', { n: n(there(s) ?? 0, 'whole'), source: source ?? '' })
      }}</span>
      <button
        class="btn bare slim"
        :aria-label="t('carry.offLabel', { heading: s, for: heading.heading })"
        @click="emit('decide', s, true)"
      >
        {{ t('carry.off') }}
      </button>
    </div>
    <div v-if="heading.declined" class="row">
      <span class="small grow">{{ t('carry.declined') }}</span>
      <button
        class="btn bare slim"
        :aria-label="t('carry.otherwiseLabel', { heading: heading.heading })"
        @click="emit('decide', '', true)"
      >
        {{ t('carry.otherwise') }}
      </button>
    </div>
    <p v-else-if="!decided && !proposals.length" class="small">{{ t('carry.none') }}</p>
    <component :is="decided ? 'details' : 'div'" v-if="proposals.length && !heading.declined">
      <summary v-if="decided" class="small">{{ t('carry.others', proposals.length) }}</summary>
      <div v-for="p in proposals" :key="p.heading" class="proposal">
        <div class="row">
          <span class="chip" :title="p.scopeNote"
            ><b>{{ p.heading }}</b></span
          >
          <span class="small grow"
            ><template v-if="p.via">{{
              t(`carry.via.${p.via}`, { matched: p.matched ?? '' })
            }}</template
            ><template v-if="p.via && p.found">, </template
            ><template v-if="p.found">{{
              t(said?.byBlock ? 'carry.foundByBlock' : 'carry.found', {
                n: n(p.found.records, 'whole'),
                all: n(p.found.all, 'whole'),
              })
            }}</template></span
          >
          <span v-if="there(p.heading) !== undefined" class="small num">{{
            t('carry.there', { n: n(there(p.heading) ?? 0, 'whole'), source: source ?? '' })
          }}</span>
          <button
            class="btn outline slim"
            :aria-label="t('carry.takeLabel', { heading: p.heading, for: heading.heading })"
            @click="emit('decide', p.heading, false)"
          >
            {{ t(decided ? 'carry.also' : 'carry.take') }}
          </button>
        </div>
        <p v-if="p.scopeNote" class="small">{{ p.scopeNote }}</p>
      </div>
    </component>
    <button
      v-if="!decided && proposals.length"
      class="btn bare"
      :aria-label="t('carry.declineLabel', { heading: heading.heading })"
      @click="emit('decide', '', false)"
    >
      {{ t('carry.decline') }}
    </button>
  </li>
</template>

<style scoped>
li {
  border-top: 1px solid var(--line-soft);
  padding: 7px 0;
  margin-top: 6px;
}

.own {
  font-weight: 650;
}

.row {
  gap: 8px;
}

.taken,
.proposal {
  margin-top: 4px;
}

.slim {
  padding: 2px 9px;
}

summary {
  cursor: pointer;
  margin-top: 4px;
}
</style>
