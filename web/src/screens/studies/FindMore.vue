<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import { figures, useFigure } from '@/figures'
import EmptyState from '@/parts/EmptyState.vue'
import { useProblem } from '@/state/problem'
import FoundRow from './FoundRow.vue'
import FoundPanel from './FoundPanel.vue'
import RoundForm from './RoundForm.vue'
import RoundList from './RoundList.vue'
import { orders, shows, useFound } from './found'

/** Rounds along references and citing works, and through people and journals: what they brought, one list to judge. */
const { t, n } = useI18n()
const problem = useProblem()

const rounds = useFigure(figures.rounds, () => null, {
  // A round goes on in the background; news of it may be missed.
  again: (q) =>
    q.state.data?.some((r) => ['waiting', 'going', 'stopping'].includes(r.state)) ? 2000 : false,
})
const route = useRoute()
const asking = ref(false)
// A journal, a team or a record that somebody reads leads here.
watch(
  () => route.query,
  (query) => (asking.value ||= query.way !== undefined),
  { immediate: true },
)
const { show, round, order, found, first, works, moved, anew, chosen, here, go, say, shelve } =
  useFound()

// What is like those that belong is looked through in that order, as soon as a round brought it.
watch(
  () => rounds.data.value?.at(-1),
  (last, before) => {
    if (before && last?.way === 'alike' && last.number !== before.number) round.value = last.number
  },
)
watch(
  () => rounds.data.value?.find((r) => r.number === round.value)?.way,
  (way) => way === 'alike' && (order.value = 'alike'),
  { immediate: true },
)

const list = ref<HTMLElement>()
function move(by: number) {
  const next = go(by)
  if (next) document.getElementById(`found-${next.record.id}`)?.scrollIntoView({ block: 'nearest' })
}
// As where a few of a set are judged, and on every screen that can put a record on the shelf.
const verdicts = { 1: 'key', 2: 'not', 3: 'unsure', z: 'open' } as const
function onKey(e: KeyboardEvent) {
  if (e.ctrlKey || e.metaKey || e.altKey || (e.target as HTMLElement).matches('input, select'))
    return
  const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[e.key]
  const key = e.key.toLowerCase()
  if (by) move(by)
  else if (key === 'o') anew()
  else if (!here.value) return
  else if (key in verdicts) void say(here.value, verdicts[key as 'z'])
  else if (key === 'k') shelve(here.value)
  else return
  e.preventDefault()
}
// Likeness is told once enough was judged.
const offered = computed(() =>
  orders.filter((x) => x !== 'alike' || works.value.some((w) => w.score !== undefined)),
)
const none = computed(() => rounds.data.value?.length === 0)
</script>

<template>
  <div class="find">
    <p v-if="rounds.error.value" class="wrong" role="alert">{{ problem(rounds.error.value) }}</p>
    <RoundForm
      v-if="asking || none"
      :key="route.fullPath"
      :rounds="rounds.data.value ?? []"
      @close="asking = false"
    />
    <RoundList
      v-if="rounds.data.value?.length"
      :rounds="rounds.data.value"
      :chosen="round"
      :asking="asking"
      @choose="round = $event"
      @ask="asking = !asking"
    />
    <template v-if="!none && first">
      <div class="row bar">
        <div class="row" role="group" :aria-label="t('found.show')">
          <button
            v-for="x in shows"
            :key="x"
            class="chip"
            :aria-pressed="show === x"
            @click="show = x"
          >
            {{ t(`found.shows.${x}`) }} <b>{{ n(first.counts[x], 'whole') }}</b>
          </button>
        </div>
        <span class="grow" />
        <button v-if="moved" class="btn bare" @click="anew">
          {{ t('found.anew') }} <kbd>O</kbd>
        </button>
        <label class="small row"
          >{{ t('found.order')
          }}<select v-model="order" class="field short">
            <option v-for="x in offered" :key="x" :value="x">{{ t(`found.orders.${x}`) }}</option>
          </select></label
        >
      </div>
      <p v-if="first.cut" class="small" role="note">{{ t('found.cut', { n: first.cut }) }}</p>
      <EmptyState
        v-if="!works.length"
        :title="t(first.counts.all ? 'found.noneSo' : 'found.noneYet')"
        :text="t(first.counts.all ? 'found.noneSoText' : 'found.noneYetText')"
      />
      <div v-else class="two">
        <div class="left">
          <div
            ref="list"
            class="works"
            role="listbox"
            tabindex="0"
            :aria-label="t('found.works')"
            :aria-activedescendant="chosen ? `found-${chosen}` : undefined"
            @keydown="onKey"
          >
            <FoundRow
              v-for="w in works"
              :id="`found-${w.record.id}`"
              :key="w.record.id"
              :work="w"
              :selected="w.record.id === chosen"
              @click="((chosen = w.record.id), list?.focus())"
            />
          </div>
          <button
            v-if="found.hasNextPage.value"
            class="btn bare"
            :disabled="found.isFetchingNextPage.value"
            @click="found.fetchNextPage()"
          >
            {{ t('found.more', { n: n(first.total - works.length, 'whole') }) }}
          </button>
        </div>
        <FoundPanel
          v-if="here"
          :work="here"
          @say="here && say(here, $event)"
          @shelve="here && shelve(here)"
          @keydown="onKey"
        />
      </div>
    </template>
    <p v-else-if="found.error.value" class="wrong" role="alert">{{ problem(found.error.value) }}</p>
  </div>
</template>

<style scoped>
.find {
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-height: 0;
  flex: 1;
}

.bar {
  flex-wrap: wrap;
  gap: 6px 10px;
}

.bar .row {
  flex-wrap: wrap;
  gap: 6px;
}

.chip[aria-pressed='true'] {
  border-color: var(--plum);
  box-shadow: inset 0 0 0 1px var(--plum);
  color: var(--plum);
}

.short {
  width: auto;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 16px;
  flex: 1;
  min-height: 260px;
}

.left {
  display: flex;
  flex-direction: column;
  min-height: 0;
}

.works {
  overflow-y: auto;
  flex: 1;
  min-height: 0;
  outline-offset: -2px;
}

@media (max-width: 820px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    flex: none;
  }

  .works {
    max-height: 50vh;
  }
}
</style>
