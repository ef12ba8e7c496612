<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { RecordSet } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useLooked } from '@/state/looked'
import { useReview } from '@/state/review'
import type { State } from './candidates'

/** What is looked at, against what; both can be chosen here. */
const props = defineProps<{ records?: number; contrast?: number; counts?: Record<State, number> }>()

const { t, n } = useI18n()
const review = useReview()
const looked = useLooked()

const against = computed(() => {
  if (looked.set)
    return looked.set.kind === 'within'
      ? t('looked.restOf', { set: looked.name(looked.set.in) })
      : t('looked.rest')
  const other = review.samples.find((s) => s.id === review.look.against)
  return other?.name ?? (review.look.rest ? t('samples.rest') : t('samples.nothing'))
})
const others = computed(() => review.samples.filter((s) => s.id !== review.look.sample))
const title = computed(() => (looked.set ? looked.name(looked.set) : (review.sample?.name ?? '')))
const size = computed(() => (looked.set ? props.records : review.sample?.records))

function look(sample: number) {
  const same = review.look.against === sample
  void review.lookAt({
    source: review.look.source,
    sample,
    against: same ? undefined : review.look.against,
    rest: review.look.rest || same,
  })
}

const set = (a?: number, rest = false) =>
  void review.lookAt({ source: review.look.source, sample: review.look.sample, against: a, rest })
const same = (a: RecordSet) => JSON.stringify(a) === JSON.stringify(looked.set)
</script>

<template>
  <div class="row looked">
    <span class="small typical">{{ t('harvest.typical') }}</span>
    <v-menu max-height="520">
      <template #activator="{ props: menu }">
        <button
          class="chip"
          :class="{ set: looked.set }"
          v-bind="menu"
          :aria-label="`${t('looked.at')}: ${title}`"
        >
          <b class="cut">{{ title }}</b><em v-if="size !== undefined">{{
            t('count.records', { n: n(size, 'whole') }, size)
          }}</em>
        </button>
      </template>
      <v-list :aria-label="t('looked.at')">
        <v-list-subheader>{{ t('looked.groupSamples') }}</v-list-subheader>
        <v-list-item
          v-for="s in review.samples"
          :key="s.id"
          :title="s.name"
          :subtitle="t('count.records', { n: n(s.records, 'whole') }, s.records)"
          :active="!looked.set && s.id === review.sample?.id"
          @click="look(s.id)"
        />
        <v-list-subheader v-if="looked.offered.length">{{
          t('looked.groupBlocks')
        }}</v-list-subheader>
        <v-list-item
          v-for="(s, i) in looked.offered"
          :key="i"
          :active="same(s)"
          @click="looked.at(s)"
        >
          <v-list-item-title class="offered"
            ><BlockStamp
              v-if="s.kind === 'block' || s.kind === 'spot'"
              :block="s.block"
              :size="17"
              :ghost="s.kind === 'spot'"
            />{{ looked.name(s) }}</v-list-item-title
          >
        </v-list-item>
      </v-list>
    </v-menu>
    <span class="small">{{ t('harvest.against') }}</span>
    <span v-if="looked.set" class="chip still" :title="t('looked.restHint')"
      ><b class="cut">{{ against }}</b
      ><em v-if="contrast !== undefined">{{ n(contrast, 'whole') }}</em></span
    >
    <v-menu v-else>
      <template #activator="{ props: menu }">
        <button class="chip" v-bind="menu">
          <b class="cut">{{ against }}</b><em v-if="contrast">{{ n(contrast, 'whole') }}</em>
        </button>
      </template>
      <v-list>
        <v-list-item :title="t('samples.rest')" @click="set(undefined, true)" />
        <v-list-item
          v-for="s in others"
          :key="s.id"
          :title="s.name"
          :subtitle="t('count.records', { n: n(s.records, 'whole') }, s.records)"
          @click="set(s.id)"
        />
        <v-list-item :title="t('samples.nothing')" @click="set()" />
      </v-list>
    </v-menu>
    <button
      v-if="looked.set"
      class="btn bare"
      :aria-label="t('looked.back')"
      :title="t('looked.back')"
      @click="looked.at(undefined)"
    >
      ×
    </button>
    <span class="grow" />
    <span v-if="counts" class="small counts">{{
      t('harvest.counts', {
        open: n(counts.open, 'whole'),
        kept: n(counts.kept, 'whole'),
        parked: n(counts.parked, 'whole'),
        dropped: n(counts.dropped, 'whole'),
      })
    }}</span>
    <slot />
  </div>
</template>

<style scoped>
.looked {
  flex: none;
  min-width: 0;
  white-space: nowrap;
}

.chip b {
  max-width: 200px;
}

/* One line: what can be done with what is looked at never leaves the window. */
@media (max-width: 1400px) {
  .typical {
    position: absolute;
    clip-path: inset(50%);
  }
}

@media (max-width: 1150px) {
  .chip b {
    max-width: 120px;
  }

  .counts {
    display: none;
  }
}

@media (max-width: 820px) {
  .looked {
    flex-wrap: wrap;
  }
}

.chip.set {
  border-color: var(--gold);
  background: var(--gold-soft);
}

.chip.still {
  cursor: default;
  background: none;
}

.offered {
  display: flex;
  align-items: center;
  gap: 8px;
}

.counts {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
