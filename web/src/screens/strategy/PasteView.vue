<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { type QueryFinding } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useProblem } from '@/state/problem'
import FindingList from './FindingList.vue'
import InWords from './InWords.vue'
import QueryEditor from './QueryEditor.vue'
import TakeBlocks from './TakeBlocks.vue'
import { mended, usePasted } from './pasted'

/** A query that somebody wrote: read as it is typed, said in words, checked, and turned into blocks. */
const { t } = useI18n()
const problem = useProblem()
const { text, dialect, asked, said, current } = usePasted()
const editor = ref<InstanceType<typeof QueryEditor>>()
const chosen = ref(-1)

const dialects = useFigure(figures.dialects, () => null)
const findings = computed(() => (current.value ? (said.value?.findings ?? []) : []))

/** What stood there before a mend, to go back to. */
const before = ref<string[]>([])
function mend(f: QueryFinding) {
  before.value.push(text.value)
  text.value = mended(text.value, f, f.mend ?? '')
  chosen.value = -1
}
function back() {
  text.value = before.value.pop() ?? text.value
}
</script>

<template>
  <div class="paste">
    <div class="left">
      <QueryEditor ref="editor" v-model="text" :findings="findings" :chosen="chosen" />
      <div class="row under">
        <label class="row small"
          >{{ t('pasted.dialect')
          }}<select v-model="dialect" class="field">
            <option value="">
              {{
                said && !dialect
                  ? t('pasted.told', { dialect: said.title })
                  : t('pasted.tellByItself')
              }}
            </option>
            <option
              v-for="d in dialects.data.value ?? []"
              :key="d.name"
              :value="d.name"
              :disabled="!!d.broken"
            >
              {{ d.title }}
            </option>
          </select></label
        >
        <span class="grow" />
        <span v-if="asked.isFetching.value" class="small" role="status">{{
          t('pasted.reading')
        }}</span>
        <button v-if="before.length" class="btn bare" @click="back">{{ t('pasted.back') }}</button>
      </div>
      <p v-if="asked.error.value && text.trim()" class="wrong" role="alert">
        {{ problem(asked.error.value) }}
      </p>
      <InWords v-if="said" :said="said" class="stand" @point="(p) => editor?.point(p)" />
      <p v-else class="small start">{{ t('pasted.start') }}</p>
    </div>
    <div v-if="said" class="right">
      <FindingList
        v-model:chosen="chosen"
        :findings="said.findings"
        :text="said.text"
        :current="current"
        :sampled="said.sampled"
        @mend="mend"
        @point="(f) => editor?.point(f)"
      />
      <TakeBlocks :said="said" :current="current" class="stand" />
    </div>
  </div>
</template>

<style scoped>
.paste {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 18px;
  align-items: start;
}

.under {
  margin-top: 6px;
}

.under select {
  width: auto;
}

.stand {
  margin-top: 14px;
}

.start {
  margin-top: 14px;
  max-width: 60ch;
}

.wrong {
  color: var(--miss);
  margin-top: 6px;
}

@media (max-width: 1000px) {
  .paste {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
