<script setup lang="ts">
import type { WrittenSection } from '@/api/client'

/** One section of the record, as it prints. */
defineProps<{ section: WrittenSection }>()
/** A word that may be broken anywhere, since it would push the rest aside. */
const long = (text: string) => /\S{25}/.test(text)
</script>

<template>
  <section :id="section.id" tabindex="-1" :aria-labelledby="`${section.id}-title`">
    <h2 :id="`${section.id}-title`">{{ section.title }}</h2>
    <p v-if="!section.parts.length" class="none">{{ section.empty }}</p>
    <template v-for="(p, i) in section.parts" :key="i">
      <h3 v-if="p.title">{{ p.title }}</h3>
      <p v-if="p.text" :class="{ none: p.note }">{{ p.text }}</p>
      <ul v-if="p.items?.length">
        <li v-for="(x, k) in p.items" :key="k">{{ x }}</li>
      </ul>
      <pre v-if="p.code" class="mono">{{ p.code }}</pre>
      <table v-if="p.table" class="written">
        <thead>
          <tr>
            <component
              :is="h ? 'th' : 'td'"
              v-for="(h, k) in p.table.head"
              :key="k"
              :class="{ right: p.table.right[k] }"
            >
              {{ h }}
            </component>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(r, k) in p.table.rows" :key="k">
            <td v-for="(c, m) in r" :key="m" :class="{ right: p.table.right[m], long: long(c) }">
              {{ c }}
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
section {
  scroll-margin-top: 10px;
}

h2 {
  font: 600 16px/1.3 var(--display);
  margin: 22px 0 5px;
}

h3 {
  font-size: 13px;
  margin: 10px 0 3px;
}

p {
  max-width: 78ch;
}

ul {
  list-style: disc;
  padding-left: 18px;
}

.none {
  color: var(--ink-2);
}

pre {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font-size: 12px;
  border: 1px solid var(--line);
  padding: 8px;
  margin: 4px 0 8px;
}

.written {
  border-collapse: collapse;
  width: 100%;
  font-size: 12.5px;
  margin: 4px 0 8px;
}

th,
td {
  text-align: left;
  vertical-align: top;
  padding: 3px 8px 3px 0;
  border-bottom: 1px solid var(--line-soft);
}

th {
  border-bottom-color: var(--ink-3);
  font-weight: 650;
}

td,
th {
  overflow-wrap: normal;
}

.long {
  overflow-wrap: anywhere;
}

.right {
  text-align: right;
  white-space: nowrap;
}

thead .right {
  white-space: normal;
}
</style>
