<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { LineChange } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useReview } from '@/state/review'
import { marked } from './marked'

/** What changed, line by line; of a line that reads otherwise, which words. */
defineProps<{ lines: LineChange[] }>()

const { t, te } = useI18n()
const review = useReview()
const kindOf = (l: LineChange) =>
  te(`compared.kind.${l.kind}`) ? t(`compared.kind.${l.kind}`) : l.kind
const stampOf = (l: LineChange) => review.document.blocks.find((b) => b.name === l.block)?.id
</script>

<template>
  <table class="figures" :aria-label="t('compared.lines')">
    <tbody>
      <tr v-for="(l, i) in lines" :key="i">
        <td class="left kind small">{{ kindOf(l) }}</td>
        <td class="left">
          <BlockStamp v-if="stampOf(l)" :block="stampOf(l)!" :size="14" /><b v-else>{{ l.block }}</b
          >{{ ' ' }}
          <template v-if="l.was && l.now && l.was !== l.now"
            ><span class="mono was"
              ><template v-for="(w, k) in marked(l.was, l.now)" :key="k"
                ><del v-if="w.other">{{ w.text }}</del
                ><template v-else>{{ w.text }}</template></template
              ></span
            >
            <span class="mono now"
              ><template v-for="(w, k) in marked(l.now, l.was)" :key="k"
                ><ins v-if="w.other">{{ w.text }}</ins
                ><template v-else>{{ w.text }}</template></template
              ></span
            ></template
          >
          <span v-else-if="l.kind.startsWith('block')"
            ><b>{{ l.concept }}</b> <span class="small">{{ l.now ?? l.was }}</span></span
          >
          <span v-else class="mono">{{ l.now ?? l.was }}</span>
          <span v-if="l.from" class="small">{{ t('compared.from', { block: l.from }) }}</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.kind {
  width: 110px;
}

.was,
.now {
  display: block;
}

del {
  background: #f3dcd5;
  text-decoration: line-through;
}

ins {
  background: var(--gold-soft);
  text-decoration: none;
}
</style>
