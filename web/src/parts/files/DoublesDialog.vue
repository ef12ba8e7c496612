<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { DoublesRule, FileQuestion, Import } from '@/api/client'
import { useImports } from '@/state/imports'
import { useProblem } from '@/state/problem'

/** Records of one file that are of the same work, side by side, and what becomes of the later ones. */
const props = defineProps<{ file: Import; asked: FileQuestion }>()
const emit = defineEmits<{ close: [] }>()
const { t, te, n } = useI18n()
const imports = useImports()
const problem = useProblem()

const rules: DoublesRule[] = ['apart', 'join', 'leave']
const rule = ref<DoublesRule>('apart')
const choices = ref<Record<number, DoublesRule>>({})
const failed = ref('')
const perhaps = (place: number) => props.asked.doubles.find((d) => d.place === place)?.perhaps
/** What becomes of a record: of one that is only perhaps the same work a rule for all says nothing. */
const byRule = (place: number): DoublesRule => (perhaps(place) ? 'apart' : rule.value)
const of = (place: number) => choices.value[place] ?? byRule(place)
const label = (field: string) => (te(`recordField.${field}`) ? t(`recordField.${field}`) : field)

/** A rule for all takes back what was chosen one by one. */
function forAll(r: DoublesRule) {
  rule.value = r
  choices.value = {}
}

function choose(place: number, r: DoublesRule) {
  const next = { ...choices.value, [place]: r }
  if (r === byRule(place)) delete next[place]
  choices.value = next
}

async function go() {
  try {
    await imports.answer(props.file, {
      doubles: rule.value,
      choices: choices.value as Record<string, DoublesRule>,
      remember: false,
    })
    emit('close')
  } catch (error) {
    failed.value = problem(error)
  }
}
</script>

<template>
  <v-dialog
    :model-value="true"
    :max-width="940"
    :aria-label="t('doubles.title', { name: file.name })"
    @update:model-value="emit('close')"
  >
    <v-card class="sheet tall">
      <h2 class="display">{{ t('doubles.title', { name: file.name }) }}</h2>
      <p class="small">{{ t('doubles.text') }}</p>
      <div class="row rule">
        <b>{{ t('doubles.rule') }}</b>
        <span class="group" role="group" :aria-label="t('doubles.rule')"
          ><button
            v-for="r in rules"
            :key="r"
            class="opt"
            :class="{ on: rule === r }"
            :aria-pressed="rule === r"
            :title="r === 'join' ? t('doubles.joinTip') : undefined"
            @click="forAll(r)"
          >
            {{ t(`doubles.${r}`) }}
          </button></span
        >
        <span v-if="asked.total > asked.doubles.length" class="small">{{
          t('doubles.shown', { n: n(asked.doubles.length, 'whole'), of: n(asked.total, 'whole') })
        }}</span>
      </div>
      <ol class="list" tabindex="0" :aria-label="t('doubles.title', { name: file.name })">
        <li v-for="d in asked.doubles" :key="d.place">
          <div class="row">
            <h3 class="display grow">
              {{ d.title || t('record.noTitle') }}
              <em v-if="d.perhaps" class="small" :title="t('doubles.perhapsTip')">{{
                t('doubles.perhaps')
              }}</em>
              <span class="small"
                >{{ d.byline }} ·
                {{ t('doubles.of', { place: n(d.place, 'whole'), of: n(d.of, 'whole') }) }}</span
              >
            </h3>
            <span class="group" role="group" :aria-label="`${t('doubles.one')}: ${d.title}`"
              ><button
                v-for="r in rules"
                :key="r"
                class="opt"
                :class="{ on: of(d.place) === r, own: choices[d.place] === r }"
                :aria-pressed="of(d.place) === r"
                @click="choose(d.place, r)"
              >
                {{ t(`doubles.${r}`) }}
              </button></span
            >
          </div>
          <table v-if="d.differences.length" class="figures">
            <thead>
              <tr>
                <th class="left">{{ t('doubles.field') }}</th>
                <th class="left">{{ t('doubles.earlier') }}</th>
                <th class="left">{{ t('doubles.later') }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="x in d.differences" :key="x.field">
                <td class="left small">{{ label(x.field) }}</td>
                <td class="left">
                  <span v-if="x.a">{{ x.a }}</span><span v-else class="small">{{
                    t('doubles.empty')
                  }}</span>
                </td>
                <td class="left">
                  <span v-if="x.b" :class="{ fills: !x.a && of(d.place) === 'join' }">{{
                    x.b
                  }}</span><span v-else class="small">{{ t('doubles.empty') }}</span>
                </td>
              </tr>
            </tbody>
          </table>
          <p v-else class="small">{{ t('doubles.same') }}</p>
        </li>
      </ol>
      <p v-if="failed" class="wrong" role="alert">{{ failed }}</p>
      <div class="row foot">
        <span class="grow" /><button class="btn outline" @click="emit('close')">
          {{ t('reader.close') }}</button
        ><button class="btn" @click="go">{{ t('doubles.go') }}</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.rule {
  margin: 10px 0;
}

.list {
  overflow-y: auto;
  min-height: 0;
}

li {
  border-top: 1px solid var(--line);
  padding: 10px 2px 12px;
}

h3 {
  font-size: 14.5px;
  font-weight: 600;
  min-width: 0;
}

h3 .small {
  font: 12px var(--ui);
}

table.figures {
  table-layout: fixed;
}

th:first-child {
  width: 148px;
}

td {
  vertical-align: top;
  overflow-wrap: anywhere;
}

.opt.on.own {
  box-shadow: inset 0 -3px 0 var(--gold-bright);
}

.fills {
  background: var(--gold-soft);
  padding: 0 3px;
}

.foot {
  margin-top: 12px;
}
</style>
