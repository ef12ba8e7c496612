<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Check } from '@/api/client'
import { figures, useFigure } from '@/figures'
import EmptyState from '@/parts/EmptyState.vue'
import { useAct } from '@/state/act'
import { useNotes } from '@/state/notes'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'
import { useReview } from '@/state/review'
import { who } from '@/state/who'
import CheckSheet from './CheckSheet.vue'
import { useVersionName, useVersions } from './versions'

/** A version is handed to a colleague, who answers six questions of it; what is finished is a page of the record. */
const { t, d } = useI18n()
const review = useReview()
const problem = useProblem()
const notes = useNotes()
const named = useVersionName()

const asked = useFigure(figures.checks, () => null)
const checks = computed(() => asked.data.value ?? [])
const chosen = ref<number>()
const check = computed(() => checks.value.find((x) => x.id === chosen.value) ?? checks.value[0])

const versions = useVersions()
const kept = computed(() => (versions.data.value ?? []).filter((v) => v.id).reverse())
const handing = ref(false)
const version = ref<number>()
const checker = ref('')
const note = ref('')

const act = useAct(figures.checks, figures.writtenRecord)
const once = useOnce()
async function handOver() {
  const of = version.value ?? kept.value[0]?.id
  if (!of) return
  const body = { version: of, checker: checker.value, note: note.value }
  const made = await act(
    once(
      (headers) =>
        ask(
          api.POST('/api/reviews/{review}/checks', {
            params: { path: { review: review.id } },
            headers,
            body,
          }),
        ),
      body,
    ),
  )
  if (!made) return
  handing.value = false
  checker.value = note.value = ''
  chosen.value = undefined
}
const one = (c: Check) => ({ path: { review: review.id, check: c.id } })
const finish = (c: Check, done: boolean) =>
  act(ask(api.PATCH('/api/reviews/{review}/checks/{check}', { params: one(c), body: { done } })))
async function drop(c: Check, back = false) {
  const gone = await act(
    ask(
      api.DELETE('/api/reviews/{review}/checks/{check}', {
        params: { ...one(c), query: { back } },
      }),
    ),
  )
  if (gone && !back)
    notes.say({
      text: t(c.done ? 'check.wasWithdrawn' : 'check.dropped', { name: c.name }),
      action: { label: t('steps.undo'), run: () => void drop(c, true) },
    })
}
const called = (c: Check) => t('check.of', { name: c.name, checker: c.checker })
</script>

<template>
  <div>
    <div class="row top">
      <p class="small grow">{{ t('check.hint') }}</p>
      <button v-if="!handing && kept.length" class="btn" @click="handing = true">
        {{ t('check.hand') }}
      </button>
    </div>
    <form v-if="handing" class="card hand" @submit.prevent="handOver">
      <label class="small"
        >{{ t('check.version')
        }}<select v-model="version" class="field">
          <option :value="undefined">{{ kept[0] ? named(kept[0]) : '' }}</option>
          <option v-for="v in kept.slice(1)" :key="v.id" :value="v.id">{{ named(v) }}</option>
        </select></label
      >
      <label class="small"
        >{{ t('check.to') }}<input v-model="checker" class="field" maxlength="80" required
      /></label>
      <label class="small grow"
        >{{ t('check.note') }}<input v-model="note" class="field" maxlength="4000"
      /></label>
      <button class="btn" :disabled="!checker.trim()">{{ t('check.handIt') }}</button>
      <button type="button" class="btn bare" @click="handing = false">{{ t('act.cancel') }}</button>
    </form>
    <p v-if="asked.error.value" class="wrong" role="alert">{{ problem(asked.error.value) }}</p>
    <EmptyState
      v-else-if="asked.data.value && !check"
      :title="t('check.emptyTitle')"
      :text="t(kept.length ? 'check.emptyText' : 'check.noVersion')"
    />
    <template v-else-if="check">
      <div class="row which">
        <select
          v-if="checks.length > 1"
          v-model="chosen"
          class="field"
          :aria-label="t('check.which')"
        >
          <option v-for="(c, i) in checks" :key="c.id" :value="i ? c.id : undefined">
            {{ called(c) }}
          </option>
        </select>
        <b v-else>{{ called(check) }}</b>
        <span class="small"
          ><template v-if="check.who">{{ check.who }}, </template>{{ d(check.at, 'day')
          }}<template v-if="check.note">: {{ check.note }}</template></span
        >
        <span class="grow" />
        <span v-if="check.done" class="small">{{
          t(check.doneBy ? 'check.doneBy' : 'check.done', {
            day: d(check.done, 'day'),
            who: check.doneBy ?? '',
          })
        }}</span>
        <span v-if="check.withdrawn" class="small gone">{{
          t('check.withdrawn', { day: d(check.withdrawn, 'day'), who: check.withdrawnBy ?? '' })
        }}</span>
        <button
          v-if="!check.done"
          class="btn"
          :disabled="check.answers.length < 6"
          :title="check.answers.length < 6 ? t('check.answerAll') : undefined"
          @click="finish(check, true)"
        >
          {{ t('check.finish') }}
        </button>
        <button v-else class="btn outline" @click="finish(check, false)">
          {{ t('check.goOn') }}
        </button>
        <button v-if="check.withdrawn" class="btn bare" @click="drop(check, true)">
          {{ t('check.unwithdraw') }}
        </button>
        <button v-else class="btn bare" @click="drop(check)">
          {{ t(check.done ? 'check.withdraw' : 'check.drop') }}
        </button>
      </div>
      <p v-if="!check.done && who && who !== check.checker" class="small">
        {{ t('check.youAre', { you: who, checker: check.checker }) }}
      </p>
      <CheckSheet :key="check.id" :check="check" @act="act" />
    </template>
  </div>
</template>

<style scoped>
.gone {
  color: var(--miss);
}

.top,
.which {
  gap: 12px;
  flex-wrap: wrap;
  margin-bottom: 10px;
}

.hand {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  align-items: end;
  padding: 12px 14px;
  margin-bottom: 12px;
}

.hand .field {
  display: block;
  width: 100%;
  box-sizing: border-box;
}

.which .field {
  width: auto;
}

.wrong {
  color: var(--miss);
}
</style>
