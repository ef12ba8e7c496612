<script setup lang="ts">
import Papa from 'papaparse'
import { marked } from '@/parts/files/cells'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Team } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { saveBlob } from '@/parts/files/blob'
import { useReader } from '@/parts/reader'
import { useLooked } from '@/state/looked'
import { useReview } from '@/state/review'

/** Teams of authors in what is looked at; each can itself be looked at from above. */
const emit = defineEmits<{ looked: [] }>()
const { t, n } = useI18n()
const review = useReview()
const looked = useLooked()
const reader = useReader()
const found = useFigure(figures.teams, () => null)
const teams = computed(() => found.data.value?.teams ?? [])

function save() {
  const data = teams.value.map((x) => [
    marked(x.authors.join('; ')),
    x.records,
    x.keyStudies,
    x.from || '',
    x.to || '',
  ])
  saveBlob(
    new Blob(
      [
        `${Papa.unparse({ fields: ['authors', 'records', 'key_studies', 'from', 'to'], data }, { newline: '\r\n' })}\r\n`,
      ],
      { type: 'text/csv;charset=utf-8' },
    ),
    `${t('teams.title')}.csv`,
  )
}

async function lookAt(team: Team) {
  emit('looked') // before what is looked at changes, and with it what is drawn here
  await looked.at({ kind: 'team', authors: team.keys.slice(0, 500) })
}
</script>

<template>
  <section class="teams" :aria-label="t('teams.title')">
    <h2>{{ t('teams.title') }}</h2>
    <p class="small">{{ teams.length ? t('teams.text') : t('teams.none') }}</p>
    <ol>
      <li v-for="team in teams.slice(0, 100)" :key="team.keys[0]">
        <p>
          <button
            class="link strong"
            @click="
              reader.list(
                { kind: 'team', authors: team.keys.slice(0, 500) },
                t('looked.team', { name: team.authors[0] }),
              )
            "
          >
            {{ t('count.records', { n: n(team.records, 'whole') }, team.records) }}</button>{{
            ' '
          }}
          <span v-if="team.from" class="small">{{
            team.from === team.to ? team.from : t('teams.years', { from: team.from, to: team.to })
          }}</span>
          <span v-if="team.keyStudies" class="small keys">{{
            t('count.keys', { n: team.keyStudies }, team.keyStudies)
          }}</span>
        </p>
        <p class="small">
          {{ team.authors.slice(0, 6).join('; ')
          }}<template v-if="team.authors.length > 6"
            >; {{ t('teams.more', { n: team.authors.length - 6 }) }}</template
          >
        </p>
        <button class="btn bare" @click="lookAt(team)">{{ t('teams.lookAt') }}</button>
        <router-link
          class="btn bare"
          :to="{
            name: 'studies',
            params: { review: review.id },
            query: { way: 'author', name: team.authors.slice(0, 12).join('; ').slice(0, 200) },
          }"
          >{{ t('teams.works') }}</router-link
        >
      </li>
    </ol>
    <button v-if="teams.length" class="btn outline" @click="save">{{ t('teams.save') }}</button>
  </section>
</template>

<style scoped>
.teams {
  border-left: 1px solid var(--line);
  padding: 0 0 12px 14px;
  height: 100%;
  overflow-y: auto;
}

h2 {
  font-size: 14px;
  font-weight: 650;
}

li {
  border-top: 1px solid var(--line-soft);
  padding: 6px 0;
}

.link {
  text-decoration: underline;
  text-decoration-color: var(--sand);
}

.keys {
  color: var(--ink);
  font-weight: 650;
}
</style>
