<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, Term } from '@/api/client'
import { termText, useReview } from '@/state/review'

/** Puts lines of a block under one name, so that they close up into one: the spellings of a word, say. */
const props = defineProps<{ block: Block; term: Term }>()
const emit = defineEmits<{ close: [] }>()
const { t } = useI18n()
const review = useReview()
const open = ref(true)
watch(open, (is) => !is && emit('close'))

const name = ref(props.term.group || termText(props.term))
const known = computed(() => [
  ...new Set(props.block.terms.flatMap((x) => (x.group ? [x.group] : []))),
])
/** Those that begin alike are ticked: mostly they are forms of one word. */
const start = (x: Term) =>
  termText(x)
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '')
    .slice(0, 5)
const ticked = ref(
  new Set(
    props.block.terms
      .filter(
        (x) =>
          x.id === props.term.id ||
          (props.term.group && x.group === props.term.group) ||
          (!x.group && x.kind === props.term.kind && start(x) === start(props.term)),
      )
      .map((x) => x.id),
  ),
)
function toggle(id: string) {
  const next = new Set(ticked.value)
  if (!next.delete(id)) next.add(id)
  ticked.value = next
}
function put() {
  const group = name.value.trim()
  if (!group) return
  const edits = props.block.terms
    .filter((x) => ticked.value.has(x.id) !== (x.group === group))
    .map((x) => ({
      op: 'patchTerm' as const,
      block: props.block.id,
      id: x.id,
      patch: { group: ticked.value.has(x.id) ? group : '' },
    }))
  if (edits.length)
    review.change({ key: 'group', params: { group, block: props.block.name } }, { edits })
  open.value = false
}
</script>

<template>
  <v-dialog v-model="open" :max-width="420" :aria-label="t('group.title')">
    <v-card class="grouping">
      <form @submit.prevent="put">
        <h2 class="display">{{ t('group.title') }}</h2>
        <label class="small"
          >{{ t('group.name')
          }}<input v-model="name" class="field" maxlength="100" list="groups" autocomplete="off"
        /></label>
        <datalist id="groups"><option v-for="g in known" :key="g" :value="g" /></datalist>
        <ul>
          <li v-for="x in block.terms" :key="x.id">
            <label class="row"
              ><input type="checkbox" :checked="ticked.has(x.id)" @change="toggle(x.id)" /><span
                :class="{ mono: x.kind !== 'heading' }"
                >{{ termText(x) }}</span
              ></label
            >
          </li>
        </ul>
        <div class="row">
          <button class="btn" :disabled="!name.trim() || ticked.size < 2">
            {{ t('group.put', { n: ticked.size }, ticked.size) }}
          </button>
          <button type="button" class="btn outline" @click="open = false">
            {{ t('reader.close') }}
          </button>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.grouping form {
  display: grid;
  gap: 10px;
  padding: 18px 20px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

ul {
  max-height: 300px;
  overflow-y: auto;
}
</style>
