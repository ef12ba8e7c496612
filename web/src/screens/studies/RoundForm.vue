<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import { api, ask, type AskedRound, type RecordSet, type Round } from '@/api/client'
import { figures } from '@/figures'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** Another round: which way, what it begins from, and where. */
const props = defineProps<{ rounds: Round[] }>()
const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const review = useReview()
const sources = useSources()
const problem = useProblem()

const ways = ['both', 'backward', 'forward', 'author', 'journal', 'cited', 'alike'] as const
const led = useRoute().query // a journal or a team leads here with its name
const way = ref<AskedRound['way']>(ways.find((w) => w === led.way) ?? 'both')
const links = computed(() => ['both', 'backward', 'forward'].includes(way.value))
const froms = ['records', 'keys', 'relevant', 'shelf', 'last', 'reviews'] as const
/** Records that somebody was reading, or had marked. */
const given = ((): RecordSet | undefined => {
  try {
    return typeof led.of === 'string' ? JSON.parse(led.of) : undefined
  } catch {
    return undefined // an address that somebody changed
  }
})()
const givenName = typeof led.called === 'string' ? led.called : t('found.oneRecord')
const from = ref<(typeof froms)[number]>(given ? 'records' : 'keys')
const offered = computed(() =>
  froms.filter(
    (x) =>
      (x !== 'records' || !!given) &&
      (x !== 'last' || props.rounds.some((r) => r.works > 0)) &&
      (x !== 'shelf' || review.shelf.size > 0) &&
      (x !== 'reviews' || review.samples.length > 0),
  ),
)
const twice = ref(false)
const name = ref(typeof led.name === 'string' ? led.name : '')
const cited = ref<'source' | 'sample'>('source')
const ofSample = computed(() => way.value === 'cited' && cited.value === 'sample')
const year = new Date().getFullYear()
const first = ref(year - 9)
const last = ref(year)
const most = ref(50)
const left = ref<number[]>([]) // sources that are not asked
const asked = computed(() => sources.on.filter((s) => !left.value.includes(s.id)))
const knows = (map: { indexes: Record<string, string> }) =>
  !!(map.indexes.cites || map.indexes.citedBy)
const linked = computed(() => asked.value.some((s) => knows(s.map)))

const hand = computed(() => review.document.handSearch ?? [])
const once = useOnce()
const busy = ref(false)
const failed = ref('')
const ready = computed(
  () =>
    (way.value === 'alike' || ofSample.value || asked.value.length > 0) &&
    (!['author', 'journal'].includes(way.value) || name.value.trim() !== ''),
)

async function begin() {
  busy.value = true
  failed.value = ''
  const body: AskedRound = { way: way.value, sources: asked.value.map((s) => s.id) }
  if (links.value) Object.assign(body, { from: from.value, twice: twice.value })
  if (links.value && from.value === 'records') body.of = given
  else if (way.value === 'journal')
    Object.assign(body, { name: name.value, years: [first.value, last.value] })
  else if (way.value === 'author') body.name = name.value
  if (way.value === 'cited' || way.value === 'alike') body.most = most.value
  if (ofSample.value) body.from = 'sample'
  try {
    await once(
      (headers) =>
        ask(api.POST('/api/reviews/{review}/rounds', { params: review.asked, headers, body })),
      body,
    )
    sources.fresh(figures.rounds, figures.found)
    emit('close')
  } catch (error) {
    failed.value = problem(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="card" :aria-label="t('found.another')" @submit.prevent="ready && begin()">
    <fieldset class="ways">
      <legend class="sect">{{ t('found.way') }}</legend>
      <label v-for="w in ways" :key="w" :class="{ on: way === w }">
        <input v-model="way" type="radio" name="way" :value="w" />
        <span
          ><b>{{ t(`found.ways.${w}`) }}</b
          ><span class="small">{{ t(`found.wayText.${w}`) }}</span></span
        >
      </label>
    </fieldset>
    <div class="row how">
      <template v-if="links">
        <label class="small row"
          >{{ t('found.from')
          }}<select v-model="from" class="field short">
            <option v-for="x in offered" :key="x" :value="x">
              {{ t(`found.froms.${x}`, { name: givenName }) }}
            </option>
          </select></label
        >
        <label class="small row"
          ><input v-model="twice" type="checkbox" />{{ t('found.twice') }}</label
        >
      </template>
      <template v-else-if="way === 'author' || way === 'journal'">
        <input
          v-model="name"
          class="field name"
          maxlength="200"
          :aria-label="t(`found.nameOf.${way}`)"
          :placeholder="t(`found.nameOf.${way}`)"
          :list="way === 'journal' ? 'hand-searched' : undefined"
        />
        <datalist v-if="way === 'journal'" id="hand-searched">
          <option v-for="h in hand" :key="h.name" :value="h.name" />
        </datalist>
        <template v-if="way === 'journal'">
          <input
            v-model.number="first"
            type="number"
            class="field year"
            :aria-label="t('found.firstYear')"
          />
          –
          <input
            v-model.number="last"
            type="number"
            class="field year"
            :aria-label="t('found.lastYear')"
          />
        </template>
      </template>
      <label v-else-if="way === 'cited' && review.samples.length" class="small row"
        >{{ t('found.mostBy')
        }}<select v-model="cited" class="field short">
          <option value="source">{{ t('found.cited.source') }}</option>
          <option value="sample">{{ t('found.cited.sample') }}</option>
        </select></label
      >
      <label v-if="way === 'cited' || way === 'alike'" class="small row"
        >{{ t('found.most')
        }}<input v-model.number="most" type="number" min="1" max="1000" class="field year"
      /></label>
      <template v-if="way !== 'alike'">
        <span class="small">{{ t(ofSample ? 'found.elsewhereAt' : 'found.at') }}</span>
        <label v-for="s in sources.on" :key="s.id" class="row small"
          ><input
            type="checkbox"
            :checked="!left.includes(s.id)"
            @change="left = left.includes(s.id) ? left.filter((x) => x !== s.id) : [...left, s.id]"
          />{{ s.name }}<em v-if="links && knows(s.map)">{{ t('found.knowsLinks') }}</em></label
        >
      </template>
      <span class="grow" />
      <button v-if="rounds.length" type="button" class="btn bare" @click="emit('close')">
        {{ t('reader.close') }}
      </button>
      <button class="btn" :disabled="busy || !ready">{{ t('found.begin') }}</button>
    </div>
    <p v-if="links && asked.length && !linked" class="small wrong" role="note">
      {{ t('found.noneLinked') }}
    </p>
    <p v-if="way === 'backward' && from === 'reviews'" class="small">
      {{ t('found.reviewsNote') }}
    </p>
    <p v-if="failed" class="wrong" role="alert">{{ failed }}</p>
  </form>
</template>

<style scoped>
form {
  padding: 12px 14px;
  display: grid;
  gap: 10px;
}

fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}

.ways {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 4px 12px;
}

.ways legend {
  margin-bottom: 4px;
}

.ways label {
  display: flex;
  gap: 7px;
  align-items: flex-start;
  padding: 4px 6px;
  border-radius: var(--radius);
}

.ways label.on {
  background: var(--gold-soft);
}

.ways span > * {
  display: block;
}

.how {
  flex-wrap: wrap;
  gap: 6px 12px;
}

.row em {
  font-style: normal;
  color: var(--gold-deep);
}

.short {
  width: auto;
}

.name {
  width: 220px;
}

.year {
  width: 76px;
}

.wrong {
  color: var(--miss);
}
</style>
