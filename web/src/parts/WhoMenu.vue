<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { longestName, who } from '@/state/who'

/** Who works here: a name that stands beside what is decided. It is asked of no one, and proves nothing. */
const { t } = useI18n()
const open = ref(false)
const initials = computed(() =>
  who.value
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => [...word][0].toLocaleUpperCase())
    .filter((_, i, all) => i === 0 || i === all.length - 1)
    .join(''),
)
function call(name: string) {
  who.value = name.slice(0, longestName)
}
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false" location="bottom end">
    <template #activator="{ props: menu }">
      <button
        v-bind="menu"
        class="who"
        :class="{ named: initials }"
        :aria-label="initials ? t('who.as', { name: who }) : t('who.unnamed')"
        :title="initials ? t('who.as', { name: who }) : t('who.unnamed')"
      >
        <template v-if="initials">{{ initials }}</template><svg
          v-else
          width="14"
          height="14"
          viewBox="0 0 14 14"
          aria-hidden="true"
        >
          <circle cx="7" cy="4.2" r="2.6" />
          <path d="M1.8 13c.3-3.2 2.3-4.6 5.2-4.6s4.9 1.4 5.2 4.6" />
        </svg>
      </button>
    </template>
    <section class="card box" role="dialog" :aria-label="t('who.title')">
      <label for="who" class="small">{{ t('who.title') }}</label>
      <input
        id="who"
        class="field"
        :value="who"
        :maxlength="longestName"
        autocomplete="name"
        :placeholder="t('who.place')"
        @input="call(($event.target as HTMLInputElement).value)"
        @keydown.enter="open = false"
      />
      <p class="small">{{ t('who.text') }}</p>
    </section>
  </v-menu>
</template>

<style scoped>
.who {
  flex: none;
  width: 26px;
  height: 26px;
  border-radius: 50%;
  border: 1px dashed var(--ink-3);
  background: none;
  color: var(--ink-2);
  font: 600 11px var(--ui);
  cursor: pointer;
  display: grid;
  place-items: center;
}

svg {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.3;
}

.who.named {
  border: 0;
  background: var(--night);
  color: var(--night-ink);
}

.box {
  width: 270px;
  padding: 12px 14px;
  background: var(--white);
}

.field {
  margin: 4px 0 8px;
}
</style>
