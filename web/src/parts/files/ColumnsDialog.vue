<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Columns, Import } from '@/api/client'
import { useImports } from '@/state/imports'
import { useProblem } from '@/state/problem'
import { fieldChoices, manyOf, splits } from './fields'
import FirstRecords from './FirstRecords.vue'
import { usePreview } from './preview'

/** What the columns of a table stand for, with its first records as they will be. */
const props = defineProps<{ file: Import; columns: Columns }>()
const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const imports = useImports()
const problem = useProblem()

const columns = ref(JSON.parse(JSON.stringify(props.columns)) as Columns)
const remember = ref(true)
const failed = ref('')
const { preview, looking, refill } = usePreview(
  props.file.id,
  computed(() => ({ columns: columns.value })),
)
const signs = { comma: ',', semicolon: ';', tab: '\t', bar: '|' }

/** Another way of writing makes other columns: they are guessed anew. */
async function rewrite(change: Partial<Columns>) {
  const next = await refill({ ...columns.value, ...change })
  if (next) columns.value = next
}

function mean(i: number, field: string) {
  columns.value.columns[i] = {
    ...columns.value.columns[i],
    field,
    split: manyOf(field) ? columns.value.columns[i].split || ';' : '',
  }
}

async function go() {
  try {
    await imports.answer(props.file, { columns: columns.value, remember: remember.value })
    emit('close')
  } catch (error) {
    failed.value = problem(error)
  }
}
</script>

<template>
  <v-dialog
    :model-value="true"
    :max-width="1060"
    :aria-label="t('columns.title', { name: file.name })"
    @update:model-value="emit('close')"
  >
    <v-card class="sheet tall">
      <h2 class="display">{{ t('columns.title', { name: file.name }) }}</h2>
      <p class="small">{{ t('columns.text') }}</p>
      <div class="row how">
        <span class="small">{{ t('columns.delimiter') }}</span>
        <span class="group" role="group" :aria-label="t('columns.delimiter')"
          ><button
            v-for="(s, name) in signs"
            :key="s"
            class="opt"
            :class="{ on: columns.delimiter === s }"
            :aria-pressed="columns.delimiter === s"
            @click="rewrite({ delimiter: s })"
          >
            {{ t(`columns.sign.${name}`) }}
          </button></span
        >
        <span class="small">{{ t('columns.quote') }}</span>
        <span class="group" role="group" :aria-label="t('columns.quote')"
          ><button
            v-for="q in ['&quot;', '\'']"
            :key="q"
            class="opt mono"
            :class="{ on: columns.quote === q }"
            :aria-pressed="columns.quote === q"
            @click="rewrite({ quote: q })"
          >
            {{ q }}
          </button></span
        >
        <label class="small"
          ><input v-model="columns.head" type="checkbox" /> {{ t('columns.head') }}</label
        >
      </div>
      <div class="two">
        <div
          class="list"
          tabindex="0"
          role="region"
          :aria-label="t('columns.title', { name: file.name })"
        >
          <div v-for="(c, i) in columns.columns" :key="i" class="column" :class="{ out: !c.field }">
            <b class="cut mono" :title="c.name">{{
              c.name || t('columns.column', { n: i + 1 })
            }}</b>
            <select
              class="chip"
              :value="c.field"
              :aria-label="
                t('columns.means', { name: c.name || t('columns.column', { n: i + 1 }) })
              "
              @change="mean(i, ($event.target as HTMLSelectElement).value)"
            >
              <option v-for="f in fieldChoices" :key="f" :value="f">
                {{ t(`recordField.${f}`) }}
              </option>
            </select>
            <label v-if="manyOf(c.field)" class="small split"
              >{{ t('columns.split') }}
              <select
                v-model="c.split"
                class="chip"
                :aria-label="
                  t('columns.splitOf', { name: c.name || t('columns.column', { n: i + 1 }) })
                "
              >
                <option v-for="(s, name) in splits" :key="s" :value="s">
                  {{ t(`columns.splits.${name}`) }}
                </option>
              </select>
            </label>
          </div>
        </div>
        <FirstRecords :preview="preview" :looking="looking" />
      </div>
      <p v-if="failed" class="wrong" role="alert">{{ failed }}</p>
      <div class="row foot">
        <label class="small"
          ><input v-model="remember" type="checkbox" :disabled="!columns.head" />
          {{ t('columns.remember') }}</label
        >
        <span class="grow" />
        <button class="btn outline" @click="emit('close')">{{ t('reader.close') }}</button>
        <button class="btn" :disabled="!preview || !!preview.problem" @click="go">
          {{ t('columns.read') }}
        </button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.how {
  flex-wrap: wrap;
  gap: 8px 10px;
  margin: 10px 0;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 18px;
  min-height: 0;
  flex: 1;
}

.list {
  overflow-y: auto;
  padding-right: 4px;
}

.column {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px;
  gap: 3px 10px;
  align-items: center;
  padding: 5px 2px;
  border-bottom: 1px solid var(--line-soft);
}

.column.out b {
  color: var(--ink-2);
  text-decoration: line-through;
}

.split {
  grid-column: 1 / 3;
  text-align: right;
}

.foot {
  margin-top: 12px;
}

@media (max-width: 900px) {
  .two {
    display: block;
    overflow-y: auto;
  }

  .list {
    overflow: visible;
    margin-bottom: 14px;
  }
}
</style>
