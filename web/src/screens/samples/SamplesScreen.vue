<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Draw, Sample } from '@/api/client'
import EmptyState from '@/parts/EmptyState.vue'
import FileDrop from '@/parts/FileDrop.vue'
import { useSaving } from '@/parts/files/saving'
import ImportProgress from '@/parts/ImportProgress.vue'
import { useReader } from '@/parts/reader'
import { useImports } from '@/state/imports'
import { useNotes } from '@/state/notes'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import { useSteps } from '@/state/steps'
import CompareDialog from './CompareDialog.vue'
import DrawPanel from './DrawPanel.vue'
import DrawProgress from './DrawProgress.vue'
import DrawReport from './DrawReport.vue'
import NoticesDialog from './NoticesDialog.vue'
import VocabularyPart from './VocabularyPart.vue'
import YearsPicture from './YearsPicture.vue'

const { t, n, d } = useI18n()
const review = useReview()
const imports = useImports()
const reader = useReader()
const saving = useSaving()
const notes = useNotes()
const steps = useSteps()
const sources = useSources()

const reading = ref<Sample>()
const comparing = ref(false)
const drawn = ref<Draw>()
/** How a sample came to be: from a source, from two others, or from a file. */
const drawOf = (s: Sample) => sources.draws.find((x) => x.id === s.draw)
const origin = (s: Sample) =>
  s.draw ? (drawOf(s)?.from ?? '') : s.joined ? t(`compare.joined.${s.joined.how}`) : s.fileName
const report = (s: Sample) => ({
  import: s.import ?? 0,
  name: s.name,
  fileName: s.fileName,
  sum: t('notices.sum', { records: n(s.records, 'whole'), skipped: n(s.skipped, 'whole') }),
})
const others = computed(() => review.samples.filter((s) => s.id !== review.look.sample))
const contrast = computed({
  get: () =>
    review.look.against !== undefined
      ? String(review.look.against)
      : review.look.rest
        ? 'rest'
        : 'none',
  set: (v) =>
    void review.lookAt({
      source: review.look.source,
      sample: review.look.sample,
      against: v === 'rest' || v === 'none' ? undefined : Number(v),
      rest: v === 'rest',
    }),
})
/** The years that all pictures share, so that they can be compared. */
const span = computed(() => {
  const years = review.samples.flatMap((s) => s.years.map((y) => y.year)).filter((y) => y > 0)
  return years.length ? { from: Math.min(...years), to: Math.max(...years) } : undefined
})

function look(s: Sample) {
  const against = review.look.against === s.id ? undefined : review.look.against
  void review.lookAt({
    source: review.look.source,
    sample: s.id,
    against,
    rest: against === undefined && (review.look.rest || review.look.against === s.id),
  })
}

const renaming = ref<number>()
const newName = ref('')
async function rename(s: Sample) {
  renaming.value = s.id
  newName.value = s.name
  await nextTick()
  document.querySelector<HTMLInputElement>('.rename')?.select()
}

function renamed(s: Sample) {
  if (renaming.value !== s.id) return
  renaming.value = undefined
  const name = newName.value.trim()
  if (name && name !== s.name)
    review.change(
      { key: 'renameSample', params: { from: s.name, to: name } },
      { samples: [{ id: s.id, name }] },
    )
}

function remove(s: Sample) {
  review.change(
    { key: 'deleteSample', params: { name: s.name } },
    { samples: [{ id: s.id, deleted: true }] },
  )
  notes.say({
    text: t('note.deletedSample', { name: s.name }),
    action: { label: t('steps.undo'), run: steps.undo },
  })
}
</script>

<template>
  <div class="screen">
    <FileDrop :hint="t('samples.drop')" class="place" @files="imports.bring($event, 'sample')">
      <template #default="{ choose }">
        <DrawPanel />
        <div class="row head">
          <h2 class="sect">{{ t('samples.title') }}</h2>
          <span class="grow" />
          <template v-if="review.sample">
            <label class="small" for="contrast">{{
              t('samples.against', { sample: review.sample.name })
            }}</label>
            <select id="contrast" v-model="contrast" class="chip">
              <option value="rest">{{ t('samples.rest') }}</option>
              <option v-for="s in others" :key="s.id" :value="String(s.id)">{{ s.name }}</option>
              <option value="none">{{ t('samples.nothing') }}</option>
            </select>
          </template>
          <button v-if="review.samples.length > 1" class="btn bare" @click="comparing = true">
            {{ t('compare.open') }}
          </button>
          <button class="btn outline" @click="choose">{{ t('samples.bring') }}</button>
        </div>
        <ImportProgress kind="sample" />
        <table v-if="review.samples.length" class="figures">
          <thead>
            <tr>
              <th class="left">{{ t('samples.sample') }}</th>
              <th class="left">{{ t('samples.from') }}</th>
              <th>{{ t('samples.records') }}</th>
              <th class="left">{{ t('draw.drawn') }}</th>
              <th class="left">{{ span ? t('samples.years', span) : '' }}</th>
              <th>{{ t('samples.date') }}</th>
              <th>
                <span class="visually-hidden">{{ t('samples.acts') }}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="s in review.samples"
              :key="s.id"
              :class="{ sel: s.id === review.look.sample }"
            >
              <td class="left">
                <input
                  v-if="renaming === s.id"
                  v-model="newName"
                  class="field rename"
                  :aria-label="t('samples.name')"
                  maxlength="200"
                  @keydown.enter="renamed(s)"
                  @keydown.esc="renaming = undefined"
                  @blur="renamed(s)"
                />
                <template v-else>
                  <label class="look"
                    ><input
                      type="radio"
                      name="sample"
                      :checked="s.id === review.look.sample"
                      :aria-label="t('samples.look', { name: s.name })"
                      @change="look(s)"
                    />{{ ' ' }} <b>{{ s.name }}</b></label
                  >
                </template>
              </td>
              <td
                class="left small cut file"
                :title="s.joined ? `${s.joined.a} · ${s.joined.b}` : origin(s)"
              >
                {{ origin(s) }}
              </td>
              <td class="count">
                <button
                  class="link num"
                  :title="t('bench.openRecords')"
                  @click="(look(s), reader.list({ kind: 'all' }, s.name))"
                >
                  {{ n(s.records, 'whole') }}</button>{{ ' ' }}
                <span v-if="drawOf(s)" class="small">{{
                  t('draw.of', { n: n(drawOf(s)!.total, 'whole') })
                }}</span>
                <button v-if="s.notices" class="link small" @click="reading = s">
                  {{
                    s.skipped
                      ? t('samples.skipped', { n: n(s.skipped, 'whole') }, s.skipped)
                      : t('samples.remarks', { n: n(s.notices, 'whole') }, s.notices)
                  }}
                </button>
              </td>
              <td class="left small">
                <button
                  v-if="drawOf(s)"
                  class="link drawn"
                  :aria-label="t('draw.report', { name: s.name })"
                  @click="drawn = drawOf(s)"
                >
                  {{ t(`how.${drawOf(s)!.how}`)
                  }}<template v-if="drawOf(s)!.troubles">
                    ·
                    {{
                      t(
                        'draw.troubles',
                        { n: n(drawOf(s)!.troubles, 'whole') },
                        drawOf(s)!.troubles,
                      )
                    }}</template
                  >
                </button>
              </td>
              <td class="left">
                <YearsPicture v-if="span" :years="s.years" :from="span.from" :to="span.to" />
              </td>
              <td class="small date" :title="d(s.drawn, 'day')">
                {{
                  d(
                    s.drawn,
                    new Date(s.drawn).getFullYear() === new Date().getFullYear() ? 'short' : 'day',
                  )
                }}
              </td>
              <td class="acts">
                <router-link
                  class="btn bare"
                  :to="{ name: 'harvest', params: { review: review.id } }"
                  :aria-label="t('samples.harvestOne', { name: s.name })"
                  @click="look(s)"
                  >{{ t('screen.harvest') }}</router-link
                >
                <button
                  class="btn bare"
                  :aria-label="t('save.sample', { name: s.name })"
                  @click="saving.save({ kind: 'sample', sample: s.id }, s.name, s.records)"
                >
                  {{ t('save.open') }}
                </button>
                <button
                  class="btn bare"
                  :aria-label="t('samples.renameOne', { name: s.name })"
                  @click="rename(s)"
                >
                  {{ t('act.rename') }}
                </button>
                <button
                  class="btn bare"
                  :aria-label="t('samples.deleteOne', { name: s.name })"
                  @click="remove(s)"
                >
                  {{ t('act.delete') }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <DrawProgress />
        <EmptyState
          v-if="!review.samples.length"
          :title="t('samples.emptyTitle')"
          :text="t('samples.emptyText')"
          ><button class="btn" @click="choose">{{ t('samples.bring') }}</button></EmptyState
        >
        <p v-if="review.samples.length" class="small hint">{{ t('samples.dropHint') }}</p>
        <VocabularyPart />
      </template>
    </FileDrop>
    <CompareDialog v-if="comparing" @close="comparing = false" />
    <DrawReport v-if="drawn" :draw="drawn" @close="drawn = undefined" />
    <NoticesDialog v-if="reading" :of="report(reading)" @close="reading = undefined" />
  </div>
</template>

<style scoped>
.screen {
  height: 100%;
  overflow-y: auto;
}

.place {
  min-height: 100%;
}

.head {
  min-height: 34px;
  flex-wrap: wrap;
}

select.chip {
  font: 12.5px var(--ui);
  color: var(--ink);
  max-width: 240px;
}

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

.hint {
  padding: 10px 8px;
}
</style>
