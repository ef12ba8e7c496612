<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { SourceRun } from '@/api/client'

/** Each answer as a bar: what no other brings is full, what others bring too is hatched. */
const props = defineProps<{ sources: SourceRun[] }>()
const { t, n } = useI18n()

const width = 460
const rows = computed(() => {
  const shown = props.sources.filter((s) => s.only && s.run?.records !== undefined)
  const most = Math.max(1, ...shown.map((s) => s.run!.records!))
  return shown.map((s) => {
    const all = s.run!.records!
    const only = Math.min(all, s.only!.works)
    const at = (x: number) => (Math.min(all, x) / most) * width
    return {
      name: s.name,
      all: at(all),
      only: at(only),
      low: at(s.only!.low),
      high: at(s.only!.high),
      label: t('everywhere.bar', {
        name: s.name,
        only: n(only, 'whole'),
        also: n(all - only, 'whole'),
      }),
    }
  })
})
</script>

<template>
  <figure :aria-label="t('everywhere.picture')">
    <figcaption class="sect">{{ t('everywhere.picture') }}</figcaption>
    <div v-for="(r, i) in rows" :key="r.name" class="bar">
      <span class="small name">{{ r.name }}</span>
      <svg :viewBox="`0 0 ${width} 18`" preserveAspectRatio="none" role="img" :aria-label="r.label">
        <title>{{ r.label }}</title>
        <defs v-if="i === 0">
          <pattern id="also" width="5" height="5" patternUnits="userSpaceOnUse">
            <path d="M0 5L5 0" stroke="var(--plum)" stroke-width="1" />
          </pattern>
        </defs>
        <rect x="0" y="1" :width="r.all" height="16" fill="url(#also)" />
        <rect x="0.5" y="1.5" :width="Math.max(0, r.all - 1)" height="15" class="edge" />
        <rect x="0" y="1" :width="r.only" height="16" fill="var(--plum)" />
        <path
          v-if="r.low !== r.high"
          :d="`M${r.low} 9H${r.high}M${r.low} 5V13M${r.high} 5V13`"
          class="range"
        />
      </svg>
    </div>
    <p class="small legend">
      <span class="swatch full" />{{ t('everywhere.onlyHere') }}<span class="swatch also" />{{
        t('everywhere.elsewhere')
      }}<template v-if="rows.some((r) => r.low !== r.high)"
        ><span class="swatch range-of" />{{ t('everywhere.range') }}</template
      >
    </p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}

.bar {
  display: grid;
  grid-template-columns: 90px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
  height: 26px;
}

.name {
  text-align: right;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

svg {
  width: 100%;
  height: 18px;
}

.edge {
  fill: none;
  stroke: var(--plum);
}

.range {
  stroke: var(--gold);
  stroke-width: 2;
  fill: none;
}

.legend {
  display: flex;
  align-items: center;
  gap: 6px;
  margin: 6px 0 0 100px;
}

.swatch {
  width: 14px;
  height: 10px;
  border: 1px solid var(--plum);
  flex: none;
}

.swatch:not(:first-child) {
  margin-left: 12px;
}

.full {
  background: var(--plum);
}

.also {
  background: repeating-linear-gradient(-45deg, transparent 0 2px, var(--plum) 2px 3px);
}

.range-of {
  border: 0;
  border-left: 2px solid var(--gold);
  border-right: 2px solid var(--gold);
  background: linear-gradient(var(--gold), var(--gold)) center / 100% 2px no-repeat;
}
</style>
