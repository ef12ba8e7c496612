<script setup lang="ts">
import { computed, type Component } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'

/** The parts of a screen, one at a time: the first, or the one that the address says. */
const props = defineProps<{
  label: string
  /** Under what their names stand among the words. */
  words: string
  parts: Record<string, Component>
}>()
const { t } = useI18n()
const route = useRoute()
const router = useRouter()

const names = computed(() => Object.keys(props.parts))
const part = computed(() => {
  const said = String(route.query.part)
  return names.value.includes(said) ? said : names.value[0]!
})
function show(to: string) {
  void router.replace({ query: to === names.value[0] ? {} : { part: to } })
}
</script>

<template>
  <div class="screen">
    <div class="row parts" role="tablist" :aria-label="label">
      <button
        v-for="x in names"
        :key="x"
        class="chip"
        role="tab"
        :aria-selected="x === part"
        @click="show(x)"
      >
        {{ t(`${words}.${x}`) }}
      </button>
    </div>
    <component :is="parts[part]" />
  </div>
</template>

<style scoped>
.parts {
  margin-bottom: 10px;
}

.chip[aria-selected='true'] {
  border-color: var(--plum);
  color: var(--plum);
  font-weight: 650;
}
</style>
