<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Draw, Sample } from '@/api/client'
import { useSaving } from '@/parts/files/saving'
import { useReader } from '@/parts/reader'
import { useNotes } from '@/state/notes'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import { useSteps } from '@/state/steps'
import YearsPicture from './YearsPicture.vue'

/** A sample: where it came from, what it holds, and what can be done with it. */
const props = defineProps<{ sample: Sample; span?: { from: number; to: number } }>()
const emit = defineEmits<{ reading: []; drawn: [draw: Draw] }>()

const { t, n, d } = useI18n()
const review = useReview()
const reader = useReader()
const saving = useSaving()
const notes = useNotes()
const steps = useSteps()
const sources = useSources()

/** How a sample came to be: from a source, from two others, or from a file. */
const draw = computed(() => sources.draws.find((x) => x.id === props.sample.draw))
const origin = computed(() => {
  const { joined, fileName } = props.sample
  if (props.sample.draw) return draw.value?.from ?? ''
  return joined ? t(`compare.joined.${joined.how}`) : fileName
})

function look() {
  const against = review.look.against === props.sample.id ? undefined : review.look.against
  void review.lookAt({
    source: review.look.source,
    sample: props.sample.id,
    against,
    rest: against === undefined && (review.look.rest || review.look.against === props.sample.id),
  })
}

const renaming = ref(false)
const newName = ref('')
async function rename() {
  renaming.value = true
  newName.value = props.sample.name
  await nextTick()
  document.querySelector<HTMLInputElement>('.rename')?.select()
}

function renamed() {
  if (!renaming.value) return
  renaming.value = false
  const name = newName.value.trim()
  if (name && name !== props.sample.name)
    review.change(
      { key: 'renameSample', params: { from: props.sample.name, to: name } },
      { samples: [{ id: props.sample.id, name }] },
    )
}

function remove() {
  review.change(
    { key: 'deleteSample', params: { name: props.sample.name } },
    { samples: [{ id: props.sample.id, deleted: true }] },
  )
  notes.say({
    text: t('note.deletedSample', { name: props.sample.name }),
    action: { label: t('steps.undo'), run: steps.undo },
  })
}
</script>

<template>
  <tr :class="{ sel: sample.id === review.look.sample }">
    <td class="left">
      <input
        v-if="renaming"
        v-model="newName"
        class="field rename"
        :aria-label="t('samples.name')"
        maxlength="200"
        @keydown.enter="renamed()"
        @keydown.esc="renaming = false"
        @blur="renamed()"
      />
      <template v-else>
        <label class="look"
          ><input
            type="radio"
            name="sample"
            :checked="sample.id === review.look.sample"
            :aria-label="t('samples.look', { name: sample.name })"
            @change="look()"
          />{{ ' ' }} <b>{{ sample.name }}</b></label
        >
      </template>
    </td>
    <td
      class="left small cut file"
      :title="sample.joined ? `${sample.joined.a} · ${sample.joined.b}` : origin"
    >
      {{ origin }}
    </td>
    <td class="count">
      <button
        class="link num"
        :title="t('bench.openRecords')"
        @click="(look(), reader.list({ kind: 'all' }, sample.name))"
      >
        {{ n(sample.records, 'whole') }}</button>{{ ' ' }}
      <span v-if="draw" class="small">{{ t('draw.of', { n: n(draw.total, 'whole') }) }}</span>
      <button v-if="sample.notices" class="link small" @click="emit('reading')">
        {{
          sample.skipped
            ? t('samples.skipped', { n: n(sample.skipped, 'whole') }, sample.skipped)
            : t('samples.remarks', { n: n(sample.notices, 'whole') }, sample.notices)
        }}
      </button>
    </td>
    <td class="left small">
      <button
        v-if="draw"
        class="link drawn"
        :aria-label="t('draw.report', { name: sample.name })"
        @click="emit('drawn', draw!)"
      >
        {{ t(`how.${draw.how}`)
        }}<template v-if="draw.troubles">
          ·
          {{ t('draw.troubles', { n: n(draw.troubles, 'whole') }, draw.troubles) }}</template
        >
      </button>
    </td>
    <td class="left">
      <YearsPicture v-if="span" :years="sample.years" :from="span.from" :to="span.to" />
    </td>
    <td class="small date" :title="d(sample.drawn, 'day')">
      {{
        d(
          sample.drawn,
          new Date(sample.drawn).getFullYear() === new Date().getFullYear() ? 'short' : 'day',
        )
      }}
    </td>
    <td class="acts">
      <router-link
        class="btn bare"
        :to="{ name: 'harvest', params: { review: review.id } }"
        :aria-label="t('samples.harvestOne', { name: sample.name })"
        @click="look()"
        >{{ t('screen.harvest') }}</router-link
      >
      <button
        class="btn bare"
        :aria-label="t('save.sample', { name: sample.name })"
        @click="saving.save({ kind: 'sample', sample: sample.id }, sample.name, sample.records)"
      >
        {{ t('save.open') }}
      </button>
      <button
        class="btn bare"
        :aria-label="t('samples.renameOne', { name: sample.name })"
        @click="rename()"
      >
        {{ t('act.rename') }}
      </button>
      <button
        class="btn bare"
        :aria-label="t('samples.deleteOne', { name: sample.name })"
        @click="remove()"
      >
        {{ t('act.delete') }}
      </button>
    </td>
  </tr>
</template>

<style scoped>
.look {
  display: flex;
  align-items: center;
  gap: 8px;
  cursor: pointer;
  overflow-wrap: anywhere;
}

.look input {
  accent-color: var(--plum);
  margin: 0;
}

.file {
  max-width: 170px;
}

.link.small {
  display: block;
  margin-left: auto;
  color: var(--gold-deep);
}

.acts,
.date,
.count,
.drawn {
  white-space: nowrap;
}

.drawn {
  text-align: left;
  color: inherit;
}

.acts .btn {
  margin-left: 8px;
  text-decoration: none;
}
</style>
