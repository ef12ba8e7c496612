<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Loss, Tally } from '@/api/client'
import { useReader } from '@/parts/reader'
import { useBench } from '@/state/bench'
import { useSources } from '@/state/sources'
import SampleMark from '@/parts/SampleMark.vue'

/** What a limit would lose: of what is looked at, of the key studies, and of what is to be read. */
const props = defineProps<{
  title: string
  loss: Loss
  tally: Tally
  /** The item that the limit is to. */
  item: string
  /** It keeps out what carries another item, and not this: what says nothing stays inside. */
  keepsOut?: boolean
  /** It is not set yet: what it would change can be told. */
  resting: boolean
}>()

const { t, n } = useI18n()
const bench = useBench()
const reader = useReader()
const sources = useSources()
const lost = computed(() => ({
  records: props.loss.records - (props.keepsOut ? props.tally.missing : 0),
  keys:
    props.loss.keys === undefined
      ? undefined
      : props.loss.keys - (props.keepsOut ? props.tally.missingKeys : 0),
}))
const reading = computed(() => ({ from: bench.now?.records, to: bench.ahead?.records }))
</script>

<template>
  <section class="cost" role="status">
    <h2>{{ title }}<SampleMark /></h2>
    <p>
      <button
        class="link strong"
        :title="t('shape.showLost')"
        @click="
          reader.list(
            { kind: 'aspect', facet: tally.facet, item, aspect: keepsOut ? 'other' : 'lost' },
            title,
          )
        "
      >
        {{
          t(
            'shape.records',
            {
              n: n(lost.records, 'whole'),
              of: n(tally.looked, 'whole'),
              share: n(lost.records / Math.max(1, tally.looked), 'share'),
            },
            lost.records,
          )
        }}
      </button>
    </p>
    <p v-if="tally.missing && !keepsOut" class="small">
      <button
        class="link"
        @click="
          reader.list({ kind: 'aspect', facet: tally.facet, aspect: 'missing' }, t('shape.missing'))
        "
      >
        {{ t('shape.ofThem', { n: n(tally.missing, 'whole') }) }}
      </button>
    </p>
    <p v-if="lost.keys !== undefined" :class="{ wrong: lost.keys }">
      {{ t('shape.keys', { n: lost.keys, of: tally.keyStudies }) }}
    </p>
    <dl v-if="resting" class="small">
      <template v-if="reading.from !== undefined"
        ><dt>{{ t('shape.reading') }}</dt>
        <dd>
          {{
            reading.to === undefined
              ? t('shape.counting')
              : t('shape.now', { from: n(reading.from, 'whole'), to: n(reading.to, 'whole') })
          }}
        </dd></template
      >
      <template v-if="sources.chosen"
        ><dt>{{ t('shape.atSource', { source: sources.chosen.name }) }}</dt>
        <dd>
          {{
            bench.there ? n(bench.there.records, 'whole') : bench.asking ? t('shape.counting') : '–'
          }}
        </dd></template
      >
    </dl>
  </section>
</template>

<style scoped>
h2 {
  font-size: 13.5px;
  font-weight: 650;
}

.wrong {
  color: var(--miss);
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  margin-top: 6px;
}

dd {
  margin: 0;
}
</style>
