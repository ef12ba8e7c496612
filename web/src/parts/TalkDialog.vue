<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useNotes } from '@/state/notes'
import { useTalk } from '@/state/talk'

/** Notes something on what was chosen, to be settled later; what was typed stays where it could not be kept. */
const { t } = useI18n()
const talk = useTalk()
const notes = useNotes()

const words = ref('')
const sending = ref(false)
const before = computed(() =>
  talk.on ? talk.open.filter((x) => x.kind === talk.on!.kind && x.about === talk.on!.about) : [],
)
watch(
  () => talk.on,
  (on) => on && (words.value = ''),
)

async function keep() {
  if (!talk.on || !words.value.trim() || sending.value) return
  sending.value = true
  if (await talk.put({ ...talk.on, words: words.value })) {
    notes.say({ text: t('talk.noted', { name: talk.on.name }) })
    talk.on = undefined
  }
  sending.value = false
}
</script>

<template>
  <v-dialog
    :model-value="!!talk.on"
    max-width="520"
    :aria-label="t('talk.about', { name: talk.on?.name ?? '' })"
    @update:model-value="talk.on = undefined"
  >
    <v-card v-if="talk.on" class="talk">
      <h2>{{ t('talk.about', { name: talk.on.name }) }}</h2>
      <p class="small">{{ t('talk.hint') }}</p>
      <p v-for="x in before" :key="x.id" class="before">
        <b v-if="x.who">{{ x.who }}: </b>{{ x.words }}
      </p>
      <textarea
        v-model="words"
        class="field"
        rows="4"
        maxlength="4000"
        autofocus
        :aria-label="t('talk.words')"
        @keydown.enter.ctrl="keep"
      />
      <div class="row">
        <span class="grow" />
        <button class="btn bare" @click="talk.on = undefined">{{ t('act.cancel') }}</button>
        <button class="btn" :disabled="!words.trim() || sending" @click="keep">
          {{ t('talk.keep') }}
        </button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.talk {
  padding: 18px 20px;
}

.talk h2 {
  font-size: 18px;
  overflow-wrap: anywhere;
}

.talk textarea {
  width: 100%;
  box-sizing: border-box;
  margin: 10px 0;
}

.before {
  border-left: 3px solid var(--line);
  padding-left: 9px;
  margin-top: 8px;
  overflow-wrap: anywhere;
}
</style>
