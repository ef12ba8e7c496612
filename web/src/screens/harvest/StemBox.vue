<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { components } from '@/api/contract'

/** How the forms of a word are searched truncated, with what that drags in: each word may be kept out. */
type Stem = components['schemas']['Stem']
const on = defineModel<boolean>({ required: true })
const out = defineModel<string[]>('out', { required: true })
const props = defineProps<{ stems: Stem[]; at?: string }>()
const emit = defineEmits<{ records: [term: string] }>()

const { t, n } = useI18n()
const dragging = computed(() => props.stems.filter((s) => s.outside.length))
const toggle = (word: string) =>
  (out.value = out.value.includes(word)
    ? out.value.filter((w) => w !== word)
    : [...out.value, word])
</script>

<template>
  <div class="box" :class="{ on }">
    <button class="stems" :aria-pressed="on" @click="on = !on">
      <span
        v-for="s in stems"
        :key="s.term"
        class="stem"
        :class="{ off: s.outside.some((o) => out.includes(o.word)) }"
      >
        <b class="mono">{{ s.term }}</b>
        <span class="small"
          >{{ t('panel.stem', { reach: n(s.reach, 'whole') }) }},
          {{
            s.drag
              ? t(
                  'panel.drags',
                  {
                    n: n(s.drag, 'whole'),
                    words: s.outside
                      .slice(0, 3)
                      .map((o) => o.word)
                      .join(', '),
                  },
                  s.drag,
                )
              : t('panel.dragsNothing')
          }}</span
        >
      </span>
      <kbd>T</kbd>
    </button>
    <p class="small by">
      {{ at ? t('panel.stemsAt', { source: at }) : t('panel.stemsHere') }}
    </p>
    <details v-if="dragging.length" class="small">
      <summary>{{ t('outside.show') }}</summary>
      <p>{{ t('outside.note') }}</p>
      <template v-for="s in dragging" :key="s.term">
        <button
          v-for="o in s.outside"
          :key="o.word"
          class="word"
          :class="{ out: out.includes(o.word) }"
          :aria-pressed="out.includes(o.word)"
          @click="toggle(o.word)"
        >
          <span class="mono">{{ o.word }}</span> {{ n(o.records, 'whole') }}
          <em>{{ t(out.includes(o.word) ? 'outside.out' : 'outside.fine') }}</em>
        </button>
        <button class="btn bare" @click="emit('records', s.term)">
          {{ t('panel.stem', { reach: n(s.reach, 'whole') }) }}
        </button>
      </template>
    </details>
  </div>
</template>

<style scoped>
.box {
  margin-top: 8px;
  border: 1px dashed var(--gold);
  border-radius: var(--radius);
}

.box.on {
  background: var(--gold-soft);
  border-style: solid;
}

.stems {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 8px;
  width: 100%;
  padding: 5px 9px;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}

.stems kbd {
  margin-left: auto;
}

.stem b {
  margin-right: 5px;
}

.stem.off b {
  text-decoration: line-through;
}

.by {
  padding: 0 9px 5px;
}

details {
  padding: 0 9px 6px;
}

summary {
  cursor: pointer;
}

.word {
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--white);
  padding: 1px 7px;
  margin: 3px 4px 0 0;
  cursor: pointer;
}

.word em {
  font-style: normal;
  color: var(--ink-3);
}

.word.out {
  border-color: var(--miss);
}

.word.out .mono {
  text-decoration: line-through;
}

.word.out em {
  color: var(--miss);
}
</style>
