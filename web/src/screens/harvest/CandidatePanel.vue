<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type Block } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useReader } from '@/parts/reader'
import { useFinds, useRefusal } from '@/parts/tried'
import { useBench } from '@/state/bench'
import { dropReasons, useDecide } from '@/state/decide'
import { useReview } from '@/state/review'
import type { Candidate } from './candidates'

/** The selected item: how it goes into a block, what was decided, the words around it, its records. */
const props = defineProps<{ candidate: Candidate; target?: Block; dropping: boolean }>()
const emit = defineEmits<{ add: [block: Block, typed: string]; park: []; drop: [reason: string]; back: []; dropping: [on: boolean] }>()

const { t, n } = useI18n()
const review = useReview()
const bench = useBench()
const reader = useReader()
const said = useRefusal()
const finds = useFinds()
const { termOf, addOps } = useDecide()

const typed = ref('')
watch(() => props.candidate.key, () => (typed.value = props.candidate.item), { immediate: true })
const typedSettled = refDebounced(typed, 150)
const edited = computed(() => typed.value.trim() !== props.candidate.item)

// Someone who runs down the list with a key held does not want the words of every item.
const settled = refDebounced(computed(() => props.candidate.item), 90)
const detail = useQuery({
  queryKey: computed(() => ['item', review.id, review.viewStamp, review.keysStamp, props.candidate.facet, settled.value]),
  queryFn: () => ask(api.GET('/api/reviews/{review}/item', { params: { path: { review: review.id }, query: { facet: props.candidate.facet, item: settled.value } } })),
  placeholderData: keepPreviousData,
})
const item = computed(() => (detail.data.value?.item === props.candidate.item ? detail.data.value : undefined))

const tried = useQuery({
  queryKey: computed(() => ['term', review.id, review.viewStamp, review.keysStamp, typedSettled.value]),
  queryFn: () => ask(api.POST('/api/reviews/{review}/terms', { params: { path: { review: review.id } }, body: { typed: typedSettled.value } })),
  enabled: () => edited.value && props.candidate.facet !== 'headings',
})
const refused = computed(() => (edited.value && tried.data.value?.refused ? said(tried.data.value.refused) : ''))

function preview(b: Block | undefined) {
  if (!b || refused.value) return bench.rest(undefined)
  const ops = addOps(b, termOf(props.candidate, typed.value.trim()))
  bench.rest(ops.length ? { ops, label: `+ ${typed.value.trim()}`, block: b.id } : undefined)
}
watch(
  () => [props.candidate.key, props.candidate.state, props.target?.id, typedSettled.value, refused.value, review.revision],
  () => preview(props.candidate.state === 'open' || edited.value ? props.target : undefined),
  { immediate: true },
)

const records = () => reader.list({ facet: props.candidate.facet, item: props.candidate.item }, props.candidate.item)
</script>

<template>
  <section class="panel" :aria-label="t('panel.label', { item: candidate.item })">
    <div class="head">
      <h2 class="mono">{{ candidate.item }}</h2>
      <button class="link small" @click="records">{{ t('panel.here', { n: n(candidate.row.records, 'whole') }, candidate.row.records) }}</button>
      <span v-if="candidate.row.contrastRecords !== undefined" class="small">{{ t('panel.elsewhere', { n: n(candidate.row.contrastRecords, 'whole') }) }}</span>
      <span v-if="candidate.row.central" class="small">{{ t('panel.central', { n: n(candidate.row.central, 'whole') }) }}</span>
    </div>
    <div v-if="candidate.state !== 'open'" class="decided">
      <template v-if="candidate.state === 'kept'"><BlockStamp v-for="b in candidate.blocks" :key="b" :block="b" /> {{ t('panel.kept') }}</template>
      <span v-else>{{ t(`panel.${candidate.state}`) }}<template v-if="candidate.reason">: {{ t(`reason.${candidate.reason}`) }}</template></span>
      <button class="btn bare" @click="emit('back')">{{ t('act.takeBack') }} <kbd>Z</kbd></button>
    </div>
    <template v-if="candidate.facet !== 'headings'">
      <label class="visually-hidden" for="as-term">{{ t('panel.asTerm') }}</label>
      <input id="as-term" v-model="typed" class="field mono" :class="{ edited }" maxlength="1000" autocomplete="off" spellcheck="false" @keydown.enter="target && !refused && emit('add', target, typed.trim())" />
      <p v-if="refused" class="wrong" role="alert">{{ refused }}</p>
      <p v-else-if="edited && tried.data.value?.records !== undefined" class="proposal small">
        {{ finds(tried.data.value) }}
      </p>
    </template>
    <div class="acts">
      <button
        v-for="b in review.document.blocks" :key="b.id" class="btn" :class="{ outline: b.id !== target?.id }" :disabled="!!refused" :aria-label="t('act.addTo', { block: b.name })" :title="b.concept"
        @click="emit('add', b, typed.trim())" @mouseenter="preview(b)" @mouseleave="preview(target)" @focus="preview(b)"
      ><template v-if="b.id === target?.id">{{ t('act.addTo', { block: b.name }) }}</template><BlockStamp v-else :block="b.id" :size="18" /></button>
      <button class="btn outline" @click="emit('park')">{{ t('act.park') }}</button>
      <v-menu :model-value="dropping" @update:model-value="emit('dropping', $event)">
        <template #activator="{ props: menu }"><button class="btn bare" v-bind="menu">{{ t('act.drop') }}</button></template>
        <v-list :aria-label="t('panel.why')">
          <v-list-item v-for="(r, i) in dropReasons" :key="r" @click="emit('drop', r)"><v-list-item-title><kbd>{{ i + 1 }}</kbd> {{ t(`reason.${r}`) }}</v-list-item-title></v-list-item>
          <v-list-item @click="emit('drop', '')"><v-list-item-title><kbd>Enter</kbd> {{ t('panel.noReason') }}</v-list-item-title></v-list-item>
        </v-list>
      </v-menu>
    </div>
    <template v-if="candidate.facet !== 'headings'">
      <h3 class="sect">{{ t('panel.context') }}</h3>
      <ul v-if="item?.context.length" class="context mono">
        <li v-for="(c, i) in item.context.slice(0, 24)" :key="i">
          <button :title="t('panel.openRecord')" @click="reader.list({ facet: candidate.facet, item: candidate.item }, candidate.item, c.record)">
            <span class="before"><bdi>{{ c.before }}</bdi></span><b :class="{ key: c.key }">{{ c.match }}</b><span class="after">{{ c.after }}</span>
          </button>
        </li>
      </ul>
      <p v-else-if="item" class="small">{{ t('panel.noContext') }}</p>
    </template>
    <button class="btn bare more" @click="records">{{ t('panel.records', { n: n(candidate.row.records, 'whole') }, candidate.row.records) }} <kbd>Enter</kbd></button>
  </section>
</template>

<style scoped>
.panel {
  border-left: 1px solid var(--line);
  padding: 0 0 12px 14px;
  min-width: 0;
  height: 100%;
  overflow-y: auto;
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
}

h2 {
  font-size: 15px;
  font-weight: 700;
  overflow-wrap: anywhere;
  max-height: 4.2em;
  overflow-y: auto;
}

.link {
  text-decoration: underline;
  text-decoration-color: var(--sand);
  text-underline-offset: 2px;
}

.decided {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-top: 6px;
}

.decided .btn {
  margin-left: auto;
}

.field {
  margin-top: 8px;
}

.field.edited {
  background: var(--gold-soft);
}

.proposal,
.wrong {
  margin-top: 4px;
}

.wrong {
  color: var(--miss);
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 9px;
}

h3 {
  margin: 13px 0 4px;
}

.context {
  font-size: 11.5px;
  line-height: 1.75;
  color: var(--ink-2);
}

.context button {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 6px;
  width: 100%;
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
  white-space: pre;
  overflow: hidden;
}

.context button:hover {
  background: var(--card);
}

.context .before {
  text-align: right;
  overflow: hidden;
  direction: rtl;
}

.context .after {
  text-align: left;
  overflow: hidden;
}

.context b {
  color: var(--plum);
}

.context b.key {
  box-shadow: inset 0 -1.5px 0 var(--gold-bright);
}

.more {
  margin-top: 6px;
}
</style>
