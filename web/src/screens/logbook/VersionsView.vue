<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import ComparedVersions from './ComparedVersions.vue'
import VersionMenu from './VersionMenu.vue'
import VersionName from './VersionName.vue'
import VersionsPicture from './VersionsPicture.vue'
import { useVersionActs } from './versionActs'
import { useVersionName, useVersions } from './versions'

/** How the search came to be: versions with their figures, any two compared, and the way back to one. */
const { t, n, d } = useI18n()
const review = useReview()
const problem = useProblem()
const named = useVersionName()

const asked = useVersions()
const versions = computed(() => asked.data.value ?? [])
const keys = computed(() => versions.value.at(-1)?.recall?.of ?? 0)
const counted = computed(() => versions.value.some((v) => v.counts.length))
const pictured = computed(() => versions.value.filter((v) => v.records !== undefined).length > 1)

/** The two that are compared: the last that was kept and what holds now, until others are chosen. */
const picked = ref<number[]>([])
const chosen = computed(() => {
  const there = picked.value.filter((r) => versions.value.some((v) => v.revision === r))
  return there.length ? there : versions.value.slice(-2).map((v) => v.revision)
})
function choose(revision: number) {
  const rest = picked.value.filter((r) => r !== revision)
  picked.value = rest.length < picked.value.length ? rest : [...rest.slice(-1), revision]
}
const pair = computed(() => {
  const two = versions.value.filter((v) => chosen.value.includes(v.revision))
  return two.length === 2 ? ([two[0]!, two[1]!] as const) : undefined
})

const { keeping, keep, naming, rename, count, branching, branch, forget, back } = useVersionActs()
</script>

<template>
  <div>
    <p v-if="asked.error.value && !versions.length" class="wrong" role="alert">
      {{ problem(asked.error.value) }}
    </p>
    <template v-else>
      <div class="row top">
        <p class="small grow">{{ t('versions.hint') }}</p>
        <button v-if="!keeping" class="btn" @click="keeping = true">
          {{ t('versions.keep') }}
        </button>
      </div>
      <VersionName
        v-if="keeping"
        :label="t('versions.keepAs')"
        name=""
        note=""
        @done="keep"
        @cancel="keeping = false"
      />
      <VersionsPicture
        v-if="pictured"
        :versions="versions"
        :keys="keys"
        :chosen="chosen"
        @choose="choose"
      />
      <table class="figures" :aria-label="t('versions.table')">
        <thead>
          <tr>
            <th>
              <span class="visually-hidden">{{ t('versions.compare') }}</span>
            </th>
            <th class="left">{{ t('versions.version') }}</th>
            <th class="left">{{ t('versions.when') }}</th>
            <th>{{ t('versions.lines') }}</th>
            <th v-if="review.sample">{{ t('versions.records') }}</th>
            <th v-if="counted">{{ t('versions.counts') }}</th>
            <th v-if="keys">{{ t('versions.caught') }}</th>
            <th v-if="keys">{{ t('versions.recall') }}</th>
            <th>
              <span class="visually-hidden">{{ t('samples.acts') }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="v in [...versions].reverse()" :key="v.id">
            <td>
              <input
                type="checkbox"
                :checked="chosen.includes(v.revision)"
                :aria-label="t('versions.compareOne', { name: named(v) })"
                @change="choose(v.revision)"
              />
            </td>
            <td class="left">
              <VersionName
                v-if="branching === v.id"
                :label="t('versions.lineOf', { name: named(v) })"
                :name="t('versions.lineName', { review: review.saved?.name ?? '', name: named(v) })"
                :done="t('versions.lineBegin')"
                @done="(name) => branch(v, name)"
                @cancel="branching = undefined"
              />
              <VersionName
                v-else-if="naming === v.id"
                :label="t('versions.rename', { name: named(v) })"
                :name="v.name"
                :note="v.note ?? ''"
                @done="(name, note) => rename(v, name, note)"
                @cancel="naming = undefined"
              />
              <template v-else>
                <b v-if="v.name">{{ v.name }}</b><span v-else>{{ named(v) }}</span>
                <span v-if="v.current && v.id" class="small current">{{
                  t('versions.current')
                }}</span>
                <p v-if="v.note" class="small">{{ v.note }}</p>
                <p v-if="v.problem" class="small wrong">{{ v.problem }}</p>
              </template>
            </td>
            <td class="left small">
              <template v-if="v.id"
                >{{ d(v.at, 'day') }}, {{ d(v.at, 'time')
                }}<template v-if="v.who">, {{ v.who }}</template></template
              >
            </td>
            <td>{{ n(v.lines, 'whole') }}</td>
            <td v-if="review.sample">
              {{ v.records === undefined ? '' : n(v.records, 'whole') }}
            </td>
            <td v-if="counted" class="small counts">
              <div v-for="c in v.counts" :key="c.source" :title="d(c.at, 'day')">
                {{ c.name }} <b>{{ n(c.records, 'whole') }}</b>
              </div>
            </td>
            <td v-if="keys">{{ v.problem ? '' : v.caught }}</td>
            <td v-if="keys">
              <template v-if="v.recall"
                >{{ n(v.recall.share, 'share') }}
                <span class="small">{{
                  t('versions.between', {
                    low: n(v.recall.low, 'share'),
                    high: n(v.recall.high, 'share'),
                  })
                }}</span></template
              >
            </td>
            <td class="acts">
              <VersionMenu
                v-if="v.id && naming !== v.id && branching !== v.id"
                :version="v"
                @back="back(v)"
                @branch="branching = v.id"
                @name="naming = v.id"
                @count="count(v, $event)"
                @forget="forget(v)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <ComparedVersions v-if="pair" :older="pair[0]" :newer="pair[1]" />
      <p v-else-if="versions.length > 1" class="small">{{ t('versions.chooseTwo') }}</p>
    </template>
  </div>
</template>

<style scoped>
.top {
  gap: 14px;
  margin-bottom: 8px;
  flex-wrap: wrap;
}

.top p {
  flex: 1 1 260px;
}

td {
  vertical-align: top;
}

.counts {
  white-space: nowrap;
}

.current {
  margin-left: 8px;
  color: var(--gold-deep);
}

.acts {
  width: 30px;
}

.wrong {
  color: var(--miss);
}
</style>
