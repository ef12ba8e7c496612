<script setup lang="ts">
import NoteBar from './parts/NoteBar.vue'
</script>

<template>
  <v-app>
    <router-view />
    <NoteBar />
  </v-app>
</template>
