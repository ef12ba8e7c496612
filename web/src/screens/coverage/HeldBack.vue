<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { blockColour } from '@/parts/BlockStamp.vue'

/** What holds the missed studies back, and how many each part or set of parts. */
const props = defineProps<{ held: { by: string[]; studies: number }[] }>()

const { t } = useI18n()
const most = computed(() => Math.max(1, ...props.held.map((h) => h.studies)))

function name(by: string): string {
  return by.startsWith('limit:') ? t(`coverage.limit.${by.slice(6)}`) : by
}

function label(by: string[]): string {
  return by.length === 1
    ? t('coverage.alone', { part: name(by[0]) })
    : t('coverage.together', { parts: by.map(name).join(t('coverage.and')) })
}

function fill(by: string[]): string {
  const colours = by.map((b) => (b.startsWith('limit:') ? 'var(--ink-3)' : blockColour(b)))
  if (colours.length === 1) return colours[0]
  return `repeating-linear-gradient(90deg, ${colours.map((c, i) => `${c} ${i * 6}px ${i * 6 + 6}px`).join(', ')})`
}
</script>

<template>
  <section v-if="held.length" class="card held">
    <h2 class="sect">{{ t('coverage.heldBack') }}</h2>
    <dl>
      <template v-for="h in held" :key="h.by.join()">
        <dt>{{ label(h.by) }}</dt>
        <dd aria-hidden="true">
          <i :style="{ width: `${(h.studies / most) * 100}%`, background: fill(h.by) }" />
        </dd>
        <dd class="num">{{ h.studies }}</dd>
      </template>
    </dl>
  </section>
</template>

<style scoped>
.held {
  padding: 10px 12px;
  margin: 10px 0 14px;
  flex: none;
}

dl {
  display: grid;
  grid-template-columns: minmax(120px, auto) 1fr auto;
  gap: 5px 10px;
  margin-top: 7px;
  align-items: center;
}

dd {
  margin: 0;
}

i {
  display: block;
  height: 9px;
  max-width: 320px;
}
</style>
