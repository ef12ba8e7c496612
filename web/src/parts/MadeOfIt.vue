<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Answer } from '@/api/client'
import { useProblem } from '@/state/problem'
import { useMade } from './made'
import SourceNotes from './SourceNotes.vue'

/** What a source made of a query: as sent, as it repeats it, what it said, and what bare words would become. */
const { t, n, d } = useI18n()
const made = useMade()
const problem = useProblem()

const of = computed(() => made.open)
const bare = ref<Answer>()
const asking = ref(false)
const failed = ref('')
watch(of, () => ((bare.value = undefined), (failed.value = '')))

async function askBare() {
  if (!of.value?.count.bare) return
  asking.value = true
  try {
    bare.value = await ask(
      api.POST('/api/sources/{source}/try', {
        params: { path: { source: of.value.source.id } },
        body: { query: quoted(of.value.count.bare), own: true },
      }),
    )
  } catch (error) {
    failed.value = problem(error)
  } finally {
    asking.value = false
  }
}

/** Words as a person would type them: in quotes only where the language needs them. */
const quoted = (words: string) =>
  /^[\w*?]+$/.test(words) || of.value?.source.map.indexes.heading === undefined
    ? words
    : `"${words}"`
</script>

<template>
  <v-dialog
    :model-value="of !== undefined"
    :max-width="680"
    :aria-label="of ? t('counted.made', { source: of.source.name }) : ''"
    @update:model-value="made.open = undefined"
  >
    <v-card v-if="of" class="made">
      <h2 class="display">{{ t('counted.made', { source: of.source.name }) }}</h2>
      <p class="row">
        <b class="figure display">{{ n(of.count.records, 'whole') }}</b>{{ ' ' }}
        <span>{{ of.of }}</span><span class="grow" /><span class="small">{{
          t('counted.at', { day: d(of.count.at, 'day'), time: d(of.count.at, 'time') })
        }}</span>
      </p>
      <p v-if="of.count.refused" class="wrong" role="alert">{{ t('counted.refused') }}</p>
      <h3 class="sect">{{ t('counted.notes') }}</h3>
      <SourceNotes :notes="of.count.notes" />
      <p v-if="!of.count.notes.length" class="small">{{ t('counted.allAsked') }}</p>
      <h3 class="sect">{{ t('counted.said') }}</h3>
      <ul class="said">
        <li v-for="(s, i) in of.count.said" :key="i">
          {{ [s.text, s.detail].filter(Boolean).join(': ') }}
          <span v-if="s.number" class="small">{{ t('counted.diagnostic', { n: s.number }) }}</span>
        </li>
      </ul>
      <p v-if="!of.count.said.length" class="small">{{ t('counted.nothingSaid') }}</p>
      <h3 class="sect">{{ t('counted.sent') }}</h3>
      <pre class="mono wire" tabindex="0">{{ of.count.query }}</pre>
      <p v-if="!of.count.echoed" class="small">{{ t('counted.notEchoed') }}</p>
      <p v-else-if="of.count.echoed === of.count.query" class="small">
        {{ t('counted.echoedSame') }}
      </p>
      <template v-else
        ><h3 class="sect">{{ t('counted.echoed') }}</h3>
        <pre class="mono wire" tabindex="0">{{ of.count.echoed }}</pre>
      </template>
      <template v-if="of.count.bare">
        <h3 class="sect">{{ t('counted.bare') }}</h3>
        <button v-if="!bare" class="btn outline" :disabled="asking" @click="askBare">
          {{ t('counted.bareAsk') }}
        </button>
        <div v-else aria-live="polite">
          <p>
            {{
              t('counted.bareText', {
                term: of.count.bare,
                n: n(bare.records, 'whole'),
                here:
                  of.count.records === bare.records
                    ? t('counted.bareSame')
                    : n(of.count.records, 'whole'),
              })
            }}
          </p>
          <ul class="said">
            <li v-for="(s, i) in bare.said" :key="i">
              {{ [s.text, s.detail].filter(Boolean).join(': ') }}
            </li>
          </ul>
        </div>
        <p v-if="failed" class="wrong" role="alert">{{ failed }}</p>
      </template>
      <details>
        <summary class="small">{{ t('counted.request') }}</summary>
        <pre class="mono wire" tabindex="0">{{ of.count.sent }}</pre>
      </details>
      <div class="row foot">
        <span class="grow" /><button class="btn" @click="made.open = undefined">
          {{ t('reader.close') }}
        </button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.made {
  padding: 18px 20px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

.figure {
  font-size: 24px;
}

h3 {
  margin: 14px 0 4px;
}

.said li {
  padding: 2px 0;
}

details {
  margin-top: 12px;
}

summary {
  cursor: pointer;
}

.foot {
  margin-top: 12px;
}
</style>
