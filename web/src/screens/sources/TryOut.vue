<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Answer, type Source } from '@/api/client'
import SourceNotes from '@/parts/SourceNotes.vue'
import { useProblem } from '@/state/problem'

/** A box to put a question to a source, which shows the request as it was sent and the answer as it came. */
const props = defineProps<{ source: Source }>()
const { t, n } = useI18n()
const problem = useProblem()

const typed = ref('')
const own = ref(false)
const answer = ref<Answer>()
const failed = ref('')
const asking = ref(false)

async function put() {
  if (!typed.value.trim()) return
  asking.value = true
  failed.value = ''
  try {
    answer.value = await ask(
      api.POST('/api/sources/{source}/try', {
        params: { path: { source: props.source.id } },
        body: { query: typed.value, own: own.value },
      }),
    )
  } catch (error) {
    answer.value = undefined
    failed.value = problem(error)
  } finally {
    asking.value = false
  }
}
</script>

<template>
  <section class="card" :aria-label="t('sources.tryTitle')">
    <h3 class="sect">{{ t('sources.tryTitle') }}</h3>
    <form class="row" @submit.prevent="put">
      <input
        v-model="typed"
        class="field mono grow"
        :aria-label="t('sources.tryLabel')"
        placeholder='"farm worker*" and shade'
        spellcheck="false"
        autocomplete="off"
      />
      <label class="small own"
        ><input v-model="own" type="checkbox" /> {{ t('sources.own') }}</label
      >
      <button class="btn" :disabled="asking || !typed.trim()">
        {{ asking ? t('sources.asking') : t('sources.ask') }}
      </button>
    </form>
    <p v-if="failed" class="wrong" role="alert">{{ failed }}</p>
    <div v-if="answer" aria-live="polite">
      <p v-if="answer.refused" class="wrong">{{ t('sources.refused') }}</p>
      <p v-else>
        <b>{{ t('sources.found', { n: n(answer.records, 'whole') }, answer.records) }}</b>
      </p>
      <ul>
        <li v-for="(s, i) in answer.said" :key="i">
          {{ [s.text, s.detail].filter(Boolean).join(': ') }}
          <span v-if="s.number" class="small">{{ t('counted.diagnostic', { n: s.number }) }}</span>
        </li>
      </ul>
      <SourceNotes :notes="answer.notes" />
      <ol class="titles">
        <li v-for="(x, i) in answer.titles" :key="i" class="cut">{{ x }}</li>
      </ol>
      <h4 class="sect">{{ t('counted.sent') }}</h4>
      <pre class="mono wire" tabindex="0">{{ answer.sent }}</pre>
      <details>
        <summary class="small">{{ t('sources.received') }}</summary>
        <pre class="mono wire long" tabindex="0">{{ answer.received }}</pre>
      </details>
    </div>
  </section>
</template>

<style scoped>
section {
  padding: 10px 14px 12px;
  margin-bottom: 16px;
}

form {
  margin-top: 6px;
}

.own {
  display: flex;
  align-items: center;
  gap: 5px;
}

.titles li {
  padding: 2px 0;
}

h4 {
  margin-top: 8px;
}

pre.long {
  max-height: 260px;
}

summary {
  cursor: pointer;
  margin-top: 6px;
}

.wrong {
  color: var(--miss);
  margin-top: 6px;
}
</style>
