<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useReview } from '@/state/review'

/** Blocks that a source needs in words of its own: they are typed there instead of the lines, and kept with the block. */
const props = defineProps<{ dialect: string; title: string }>()
const { t } = useI18n()
const review = useReview()

const blocks = computed(() => review.document.blocks.filter((b) => b.searched))
const said = (b: Block) => b.wordings?.find((w) => w.dialect === props.dialect)?.query ?? ''
const worded = computed(() => blocks.value.filter(said))
const editing = ref('')
const draft = ref('')
watch(
  () => props.dialect,
  () => (editing.value = ''),
)

function edit(b: Block) {
  editing.value = b.id
  draft.value = said(b)
}

function put(b: Block, query: string) {
  const others = (b.wordings ?? []).filter((w) => w.dialect !== props.dialect)
  const wordings = query ? [...others, { dialect: props.dialect, query }] : others
  const what = { block: b.name, dialect: props.title }
  review.change(
    { key: query ? 'putWording' : 'dropWording', params: what },
    { edits: [{ op: 'patchBlock', id: b.id, patch: { wordings } }] },
  )
  editing.value = ''
}
</script>

<template>
  <details class="card" :open="worded.length > 0 || editing !== ''">
    <summary class="sect">{{ t('wording.title', { dialect: title }) }}</summary>
    <p class="small">{{ t('wording.says', { dialect: title }) }}</p>
    <ul>
      <li v-for="b in blocks" :key="b.id">
        <div class="row">
          <BlockStamp :block="b.id" :size="16" />
          <b class="grow">{{ b.concept || t('block.unnamed') }}</b>
          <template v-if="editing !== b.id">
            <button
              class="btn bare slim"
              :aria-label="t(said(b) ? 'wording.changeFor' : 'wording.sayFor', { block: b.name })"
              @click="edit(b)"
            >
              {{ t(said(b) ? 'wording.change' : 'wording.say') }}
            </button>
            <button
              v-if="said(b)"
              class="btn bare slim"
              :aria-label="t('wording.offFor', { block: b.name })"
              @click="put(b, '')"
            >
              {{ t('wording.off') }}
            </button>
          </template>
        </div>
        <form v-if="editing === b.id" @submit.prevent="put(b, draft.trim())">
          <textarea
            v-model="draft"
            class="field mono"
            rows="3"
            maxlength="10000"
            :aria-label="t('wording.of', { block: b.name, dialect: title })"
            @keydown.ctrl.enter="put(b, draft.trim())"
            @keydown.esc.stop="editing = ''"
            @vue:mounted="({ el }: { el: HTMLElement }) => el.focus()"
          />
          <div class="row">
            <span class="grow" />
            <button type="button" class="btn bare" @click="editing = ''">
              {{ t('wording.cancel') }}
            </button>
            <button class="btn" :disabled="!draft.trim()">{{ t('wording.put') }}</button>
          </div>
        </form>
        <p v-else-if="said(b)" class="mono said">{{ said(b) }}</p>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.card {
  padding: 10px 12px;
  margin-top: 14px;
}

summary {
  cursor: pointer;
}

li {
  border-top: 1px solid var(--line-soft);
  padding: 6px 0;
  margin-top: 6px;
}

.row {
  gap: 8px;
}

.slim {
  padding: 2px 9px;
}

textarea {
  width: 100%;
  box-sizing: border-box;
  margin: 6px 0;
}

.said {
  overflow-wrap: anywhere;
  margin-top: 3px;
}
</style>
