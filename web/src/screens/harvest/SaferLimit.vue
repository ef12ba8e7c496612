<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Limit, Tally } from '@/api/client'
import { limitText } from '@/parts/limitText'
import { useBench } from '@/state/bench'
import { byHeadings, othersThan, useLimit } from './limits'

/**
 * A limit that lets in what is indexed as a kind and what says so in its title, since not all is indexed yet. The words are
 * those that the program knows, open to be changed; the bench shows what the limit would cost before it is set.
 */
const props = defineProps<{ said: NonNullable<Tally['said']>[number]; tally: Tally }>()
const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const bench = useBench()
const kind = props.tally.facet as Limit['kind']
const { resting, limit } = useLimit(kind)

const lines = (of: string) => [
  ...new Set(
    of
      .split(/\n|,/)
      .map((x) => x.trim())
      .filter(Boolean),
  ),
]
const types = ref('')
const words = ref('')
watch(
  () => props.said,
  (s) => {
    types.value = s.indexed.join('\n')
    words.value = s.words.join('\n')
  },
  { immediate: true },
)
const others = computed(() =>
  byHeadings(kind)
    ? othersThan(
        lines(types.value),
        props.tally.rows.map((r) => r.item),
      )
    : [],
)
const keepsOut = ref(kind === 'humans')
const wanted = computed<Limit & { values: string[]; titles: string[] }>(() => ({
  kind,
  values: lines(types.value),
  titles: lines(words.value),
  ...(keepsOut.value && others.value.length ? { against: others.value } : {}),
}))
const some = computed(() => wanted.value.values.length + wanted.value.titles.length > 0)
watch(wanted, (w) => (resting.value = some.value ? w : undefined), { immediate: true })
const name = computed(() => t(`shape.kind.${props.said.kind}`))

function close() {
  resting.value = undefined
  emit('close')
}
function put() {
  limit(wanted.value, limitText(wanted.value, t))
  emit('close')
}
</script>

<template>
  <section class="card safer" :aria-label="t('shape.safer', { kind: name })">
    <h3 class="sect">{{ t('shape.safer', { kind: name }) }}</h3>
    <p class="small">
      {{ t(byHeadings(kind) ? 'shape.saferHeadingsText' : 'shape.saferText') }}
    </p>
    <div class="two">
      <label class="small"
        >{{ t(byHeadings(kind) ? 'shape.saferHeadings' : 'shape.saferTypes')
        }}<textarea v-model="types" class="field mono" rows="7" />
      </label>
      <label class="small"
        >{{ t('shape.saferWords') }}<textarea v-model="words" class="field mono" rows="7" />
      </label>
    </div>
    <label v-if="others.length" class="small out"
      ><input v-model="keepsOut" type="checkbox" />{{
        t('shape.keepOutOthers', { others: others.join(', ') })
      }}</label
    >
    <p v-if="bench.ahead" class="small">
      {{
        t(
          'shape.saferLeaves',
          {
            n: bench.ahead.records ?? 0,
            of: bench.now?.records ?? 0,
            caught: bench.ahead.caught.filter(Boolean).length,
          },
          bench.ahead.records ?? 0,
        )
      }}
    </p>
    <div class="row">
      <button class="btn" :disabled="!some" @click="put">{{ t('shape.saferSet') }}</button>
      <button class="btn outline" @click="close">{{ t('reader.close') }}</button>
    </div>
  </section>
</template>

<style scoped>
.safer {
  display: grid;
  gap: 8px;
  padding: 10px 12px;
  margin: 10px 0;
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}

.out {
  display: flex;
  gap: 6px;
  align-items: baseline;
}

textarea {
  display: block;
  margin-top: 3px;
  resize: vertical;
}
</style>
