<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { screens, type Screen } from '@/router'
import { useBench } from '@/state/bench'
import { useReview } from '@/state/review'

const { t } = useI18n()
const review = useReview()
const bench = useBench()

const icons: Record<Screen, string> = {
  question: '<path d="M4 5h16v11H9l-4 4V5z"/><path d="M9 9h7M9 12h4"/>',
  samples:
    '<path d="M5 7h14M5 12h14M5 17h14"/><circle cx="9" cy="7" r="2"/><circle cx="15" cy="12" r="2"/><circle cx="8" cy="17" r="2"/>',
  harvest:
    '<path d="M3 6h18l-3 7H6z"/><path d="M9 6l1 7M15 6l-1 7M4.5 9.5h15"/><path d="M9 17v1M12 16v4M15 17v1"/>',
  headings: '<path d="M5 4v16M5 7h5M5 17h5"/><path d="M10 4.5h9v5h-9zM10 14.5h9v5h-9z"/>',
  blocks:
    '<rect x="4" y="4" width="16" height="4.5"/><rect x="4" y="10" width="11" height="4.5"/><rect x="4" y="16" width="14" height="4"/>',
  strategy:
    '<path d="M9 6h11M9 12h11M9 18h7"/><path d="M4 5v3M3.6 11h1.6v1.6H3.6V14h1.8M3.6 17h1.8v3H3.6"/>',
  logbook:
    '<path d="M6 4h12v16H6z"/><path d="M9 8h6M9 12h6M9 16h3"/><path d="M4 7h3M4 12h3M4 17h3"/>',
  coverage:
    '<circle cx="6" cy="6" r="1.8"/><circle cx="12" cy="6" r="1.8"/><circle cx="18" cy="6" r="1.8"/><circle cx="6" cy="12" r="1.8"/><circle cx="18" cy="12" r="1.8"/><circle cx="6" cy="18" r="1.8"/><circle cx="12" cy="18" r="1.8"/><path d="M10.6 10.6l2.8 2.8M13.4 10.6l-2.8 2.8"/>',
}

/** Few key studies are at home on Question; more have a screen of their own. */
const few = 3
const missed = computed(() =>
  bench.now ? bench.now.caught.filter((c, i) => !c && !bench.now?.notHere?.[i]).length : 0,
)
</script>

<template>
  <nav class="rail" :aria-label="t('rail.label')">
    <router-link
      :to="{ name: 'reviews' }"
      class="mark"
      :aria-label="t('rail.reviews')"
      :title="t('rail.reviews')"
    >
      <svg width="34" height="34" viewBox="0 0 34 34" aria-hidden="true">
        <path
          d="M4 9h26l-5 13H9z"
          fill="none"
          stroke="#E6A93A"
          stroke-width="2"
          stroke-linejoin="round"
        />
        <path
          d="M10 9l2.6 13M17 9v13M24 9l-2.6 13M5.6 13.3h22.8M7.3 17.7h19.4"
          stroke="#A79DB5"
          stroke-width="1.1"
        />
        <circle cx="13" cy="27" r="1.5" fill="#fff" />
        <circle cx="18" cy="29.5" r="1.5" fill="#fff" />
        <circle cx="21.5" cy="26" r="1.5" fill="#E6A93A" />
      </svg>
    </router-link>
    <router-link
      v-for="s in screens"
      :key="s"
      :to="{ name: s, params: { review: review.id } }"
      class="place"
      active-class="here"
    >
      <!-- The icons are drawn above; nothing comes from outside. -->
      <!-- eslint-disable-next-line vue/no-v-html -->
      <svg viewBox="0 0 24 24" aria-hidden="true" v-html="icons[s]" />
      {{ t(`screen.${s}`) }}
      <i v-if="s === 'coverage' && missed" :aria-label="t('rail.missed', { n: missed })">{{
        missed
      }}</i>
    </router-link>
    <span class="grow" />
    <router-link
      v-if="review.keyStudies.length > few"
      :to="{ name: 'studies', params: { review: review.id } }"
      class="place"
      active-class="here"
    >
      <svg viewBox="0 0 24 24" aria-hidden="true">
        <circle cx="6" cy="17" r="2.2" />
        <circle cx="18" cy="17" r="2.2" />
        <circle cx="12" cy="6" r="2.2" />
        <path d="M11 8l-4 7M13 8l4 7M8.2 17h7.6" />
      </svg>
      {{ t('screen.studies') }}
    </router-link>
    <router-link
      :to="{ name: 'sources', params: { review: review.id } }"
      class="place"
      active-class="here"
    >
      <svg viewBox="0 0 24 24" aria-hidden="true">
        <ellipse cx="12" cy="6" rx="7" ry="2.6" />
        <path d="M5 6v12c0 1.4 3.1 2.6 7 2.6s7-1.2 7-2.6V6M5 12c0 1.4 3.1 2.6 7 2.6s7-1.2 7-2.6" />
      </svg>
      {{ t('screen.sources') }}
    </router-link>
    <router-link
      :to="{ name: 'shelf', params: { review: review.id } }"
      class="place"
      active-class="here"
    >
      <svg viewBox="0 0 24 24" aria-hidden="true">
        <path d="M4 20h16M5 20V8h4v12M9 20V5h4v15M14.5 8.6l3.6-1 3 11.6-3.6 1z" />
      </svg>
      {{ t('screen.shelf') }}
      <i v-if="review.shelf.size">{{ review.shelf.size }}</i>
    </router-link>
  </nav>
</template>

<style scoped>
.rail {
  background: var(--night);
  color: var(--night-dim);
  display: flex;
  flex-direction: column;
  padding: 10px 0;
  overflow-y: auto;
}

.mark {
  height: 44px;
  display: grid;
  place-items: center;
  margin-bottom: 8px;
}

.place {
  display: grid;
  justify-items: center;
  gap: 3px;
  padding: 8px 4px 7px;
  font-size: 11.5px;
  color: var(--night-dim);
  text-decoration: none;
  position: relative;
}

.place:hover {
  color: var(--night-ink);
}

.place svg {
  width: 21px;
  height: 21px;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.6;
  stroke-linecap: round;
  stroke-linejoin: round;
}

.place.here {
  color: #fff;
  background: var(--night-2);
}

.place.here::before {
  content: '';
  position: absolute;
  inset: 0 auto 0 0;
  width: 3px;
  background: var(--gold-bright);
}

.place i {
  position: absolute;
  top: 5px;
  right: 14px;
  font: 600 10px/15px var(--ui);
  min-width: 15px;
  padding: 0 4px;
  border-radius: 8px;
  background: var(--gold-bright);
  color: var(--night);
  text-align: center;
}

.rail :focus-visible {
  outline-color: var(--gold-bright);
  outline-offset: -3px;
}
</style>
