<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Version } from '@/api/client'
import { useSources } from '@/state/sources'
import { useTalk } from '@/state/talk'
import { useVersionName } from './versions'

/** What can be done with a version. */
defineProps<{ version: Version }>()
const emit = defineEmits<{
  back: []
  branch: []
  name: []
  count: [source: number]
  forget: []
}>()

const { t } = useI18n()
const sources = useSources()
const talk = useTalk()
const named = useVersionName()
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }">
      <button class="link" v-bind="menu" :aria-label="t('versions.more', { name: named(version) })">
        ⋯
      </button>
    </template>
    <v-list>
      <v-list-item v-if="!version.current" :title="t('versions.back')" @click="emit('back')" />
      <v-list-item :title="t('versions.line')" @click="emit('branch')" />
      <v-list-item
        :title="t(version.name ? 'versions.renameIt' : 'versions.nameIt')"
        @click="emit('name')"
      />
      <v-list-item
        v-for="s in sources.on"
        :key="s.id"
        :title="t('versions.askAt', { source: s.name })"
        @click="emit('count', s.id)"
      />
      <v-list-item
        :title="t('talk.raise')"
        @click="talk.on = { kind: 'version', about: String(version.id), name: named(version) }"
      />
      <v-list-item :title="t('versions.forget')" @click="emit('forget')" />
    </v-list>
  </v-menu>
</template>
