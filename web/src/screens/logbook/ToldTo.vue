<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useCopying } from '@/parts/copying'
import { useAct } from '@/state/act'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'

/** What was told of the search as it ran again, and to whom it is told: by mail, and at a secret address. */
const { t, n, d } = useI18n()
const review = useReview()
const problem = useProblem()
const copy = useCopying()

const path = () => ({ params: { path: { review: review.id } } })
const asked = useFigure(figures.told, () => null)
const told = computed(() => asked.data.value)
const fresh = computed(() => told.value?.notices.filter((x) => x.new || x.trouble) ?? [])
const addresses = computed(() => told.value?.addresses.filter((x) => !x.stopped) ?? [])

const act = useAct(figures.told)
const address = ref('')
async function add() {
  const at = address.value.trim()
  if (!at) return
  const kept = await act(
    ask(api.POST('/api/reviews/{review}/told/addresses', { ...path(), body: { address: at } })),
  )
  if (kept) address.value = ''
}
const stop = (id: number) =>
  act(
    ask(
      api.DELETE('/api/reviews/{review}/told/addresses/{address}', {
        params: { path: { review: review.id, address: id } },
      }),
    ),
  )
const open = () => act(ask(api.POST('/api/reviews/{review}/told/feed', path())))
const close = () => act(ask(api.DELETE('/api/reviews/{review}/told/feed', path())))
const feed = (format: string) =>
  `${window.location.origin}/feeds/${told.value?.feed ?? ''}/${format}`
</script>

<template>
  <p v-if="asked.error.value && !told" class="wrong" role="alert">
    {{ problem(asked.error.value) }}
  </p>
  <section v-else-if="told" class="told" :aria-label="t('told.title')">
    <h2 class="sect">{{ t('told.title') }}</h2>
    <ul v-if="fresh.length" class="notices" :aria-label="t('told.notices')">
      <li v-for="x in fresh.slice(0, 5)" :key="x.id">
        <span class="small">{{ d(x.at, 'day') }}, {{ d(x.at, 'time') }}</span>
        <b>{{ x.trouble || t('told.new', { n: n(x.new, 'whole') }, x.new) }}</b>
        <span v-if="x.likely" class="likely">{{
          t('told.likely', { n: n(x.likely, 'whole') }, x.likely)
        }}</span>
        <span v-if="x.titles[0]" class="small title">{{ x.titles[0].title }}</span>
      </li>
    </ul>
    <p v-else class="small">{{ t('told.nothing') }}</p>
    <div class="ways">
      <div>
        <h3>{{ t('told.mail') }}</h3>
        <p class="small">{{ t(told.mail ? 'told.mailHint' : 'told.noServer') }}</p>
        <ul v-if="addresses.length" :aria-label="t('told.addresses')">
          <li v-for="x in addresses" :key="x.id" class="row">
            <span class="address">{{ x.address }}</span>
            <span v-if="x.trouble" class="small wrong">{{
              t('told.bounced', { why: x.trouble })
            }}</span>
            <span v-else-if="x.waits" class="small wrong">{{
              t('told.waits', { why: x.waits, time: x.next ? d(x.next, 'time') : '' })
            }}</span>
            <span v-else-if="x.last" class="small">{{
              t('told.last', { day: d(x.last, 'day') })
            }}</span>
            <span class="grow" />
            <button
              class="link small"
              :aria-label="t('told.stopOne', { address: x.address })"
              @click="stop(x.id)"
            >
              {{ t('told.stop') }}
            </button>
          </li>
        </ul>
        <form v-if="told.mail" class="row" @submit.prevent="add">
          <input
            v-model="address"
            class="field"
            type="email"
            maxlength="254"
            :aria-label="t('told.address')"
            :placeholder="t('told.address')"
          />
          <button class="btn outline" :disabled="!address.trim()">{{ t('told.add') }}</button>
        </form>
      </div>
      <div>
        <h3>{{ t('told.feed') }}</h3>
        <p class="small">{{ t('told.feedHint') }}</p>
        <template v-if="told.feed">
          <p v-for="format in ['atom', 'rss']" :key="format" class="row">
            <span class="mono small feed">{{ feed(format) }}</span>
            <span class="grow" />
            <button
              class="link small"
              :aria-label="t('told.copyOne', { format })"
              @click="copy(feed(format), t('told.copied', { format }))"
            >
              {{ t('told.copy') }}
            </button>
          </p>
          <div class="row">
            <button class="btn bare" @click="close">{{ t('told.withdraw') }}</button>
            <button class="btn bare" @click="open">{{ t('told.another') }}</button>
          </div>
        </template>
        <button v-else class="btn outline" @click="open">{{ t('told.open') }}</button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.told {
  margin-top: 18px;
}

.told ul {
  list-style: none;
  padding: 0;
}

.notices li {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  padding: 3px 0;
  align-items: baseline;
}

.likely {
  color: var(--gold-deep);
  font-weight: 650;
}

.title,
.address,
.feed {
  overflow-wrap: anywhere;
  min-width: 0;
}

.ways {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px;
  margin-top: 12px;
}

.ways h3 {
  font-size: 15px;
}

.ways .row {
  gap: 8px;
  margin-top: 6px;
}

.wrong {
  color: var(--miss);
}

@media (max-width: 1000px) {
  .ways {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
