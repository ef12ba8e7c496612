<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { QueryFinding } from '@/api/client'
import SampleMark from '@/parts/SampleMark.vue'

/** What is wrong with a query: where, why, what it does in records, and the mend in one click. */
const chosen = defineModel<number>('chosen', { required: true })
const props = defineProps<{
  findings: QueryFinding[]
  text: string
  current: boolean
  sampled: boolean
}>()
const emit = defineEmits<{ mend: [finding: QueryFinding]; point: [finding: QueryFinding] }>()
const { t, te, n } = useI18n()

const place = (f: QueryFinding) => {
  const all = [...props.text].slice(f.from, f.to)
  return all.length > 70 ? `${all.slice(0, 70).join('')}…` : all.join('')
}
const title = (code: string) => (te(`pasted.code.${code}`) ? t(`pasted.code.${code}`) : code)
function go(i: number, f: QueryFinding) {
  chosen.value = i
  emit('point', f)
}
</script>

<template>
  <section :aria-label="t('pasted.findings')">
    <h2 class="sect">
      {{ t('pasted.found', { n: n(findings.length, 'whole') }, findings.length)
      }}<SampleMark v-if="sampled" />
    </h2>
    <p v-if="!findings.length" class="small good">
      {{ t(sampled ? 'pasted.clean' : 'pasted.cleanUnsampled') }}
    </p>
    <ol v-else>
      <li v-for="(f, i) in findings" :key="i" :class="{ chosen: i === chosen }">
        <div class="row head">
          <button class="link title" @click="go(i, f)">{{ title(f.code) }}</button>
          <span class="grow" />
          <span v-if="f.records !== null" class="small"
            >{{ t('pasted.records', { n: n(f.records, 'whole') }, f.records) }}<SampleMark
          /></span>
          <span v-if="f.keys" class="small miss">{{
            t('pasted.keys', { n: n(f.keys, 'whole') }, f.keys)
          }}</span>
        </div>
        <p v-if="place(f).trim()" class="mono at">{{ place(f) }}</p>
        <p class="small">{{ f.why }}</p>
        <div v-if="f.mend !== null" class="row mend">
          <button class="btn outline slim" :disabled="!current" @click="emit('mend', f)">
            {{ f.mend.trim() ? t('pasted.mend') : t('pasted.takeAway') }}
          </button>
          <span v-if="f.mend.trim()" class="mono cut" :title="f.mend">{{ f.mend }}</span>
        </div>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  margin-top: 8px;
}

li {
  border: 1px solid var(--line);
  border-left: 3px solid var(--gold);
  border-radius: 5px;
  background: var(--card);
  padding: 7px 10px;
}

li.chosen {
  border-color: var(--plum);
}

.title {
  font-weight: 650;
  text-align: left;
}

.at {
  font-size: 12.5px;
  overflow-wrap: anywhere;
  background: var(--gold-soft);
  padding: 1px 4px;
  margin: 3px 0;
}

.small {
  overflow-wrap: anywhere;
}

.mend {
  margin-top: 5px;
  min-width: 0;
}

.mend .cut {
  min-width: 0;
  font-size: 12.5px;
}

.slim {
  padding: 2px 9px;
}

.miss {
  color: var(--miss);
}

.good {
  margin-top: 6px;
}
</style>
