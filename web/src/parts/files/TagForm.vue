<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { TagMap } from '@/api/client'
import { fieldChoices, manyOf, splits } from './fields'
import type { TagRow } from './tagRows'

/** What a marked line looks like, where records begin and end, and what each tag is. */
const map = defineModel<TagMap>('map', { required: true })
const rows = defineModel<TagRow[]>('rows', { required: true })

const { t } = useI18n()
</script>

<template>
  <div class="form">
    <h3 class="sect">{{ t('tags.line') }}</h3>
    <div class="line">
      <label class="small"
        >{{ t('tags.before') }}
        <input v-model="map.line.before" class="field mono few" maxlength="20"
      /></label>
      <label class="small"
        >{{ t('tags.letters') }}
        <select v-model="map.line.letters" class="chip">
          <option v-for="l in ['code', 'word', 'label'] as const" :key="l" :value="l">
            {{ t(`tags.letter.${l}`) }}
          </option>
        </select></label
      >
      <label class="small"
        >{{ t('tags.after') }}
        <input v-model="map.line.after" class="field mono few" maxlength="20"
      /></label>
      <label class="small"
        ><input v-model="map.line.padded" type="checkbox" /> {{ t('tags.padded') }}</label
      >
      <label class="small"
        ><input v-model="map.line.listed" type="checkbox" /> {{ t('tags.listed') }}</label
      >
    </div>
    <h3 class="sect">{{ t('tags.records') }}</h3>
    <div class="line">
      <label class="small"
        >{{ t('tags.begins') }}
        <input
          v-model="map.begins"
          class="field mono wide"
          :placeholder="t('tags.beginsAny')"
          maxlength="80"
      /></label>
      <label class="small"
        >{{ t('tags.ends') }} <input v-model="map.ends" class="field mono few" maxlength="80"
      /></label>
      <label class="small"
        >{{ t('tags.rule') }} <input v-model="map.rule" class="field mono few" maxlength="80"
      /></label>
      <label class="small"
        ><input v-model="map.blank" type="checkbox" /> {{ t('tags.blank') }}</label
      >
      <label class="small"
        >{{ t('tags.goOn') }}
        <select v-model="map.continues" class="chip">
          <option v-for="c in ['any', 'indented'] as const" :key="c" :value="c">
            {{ t(`tags.on.${c}`) }}
          </option>
        </select></label
      >
    </div>
    <h3 class="sect">{{ t('tags.fields') }}</h3>
    <div v-for="(r, i) in rows" :key="i" class="tag">
      <input
        v-model="r.tag"
        class="field mono"
        :aria-label="t('tags.tag', { n: i + 1 })"
        maxlength="80"
      />
      <select v-model="r.field" class="chip" :aria-label="t('tags.means', { tag: r.tag })">
        <option v-for="f in fieldChoices" :key="f" :value="f">
          {{ t(`recordField.${f}`) }}
        </option>
      </select>
      <label v-if="manyOf(r.field)" class="small" :title="t('tags.split')"
        ><span class="visually-hidden">{{ t('columns.splitOf', { name: r.tag }) }}</span
        ><select v-model="r.split" class="chip">
          <option v-for="(s, name) in splits" :key="s" :value="s">
            {{ t(`columns.splits.${name}`) }}
          </option>
        </select></label
      >
      <span v-else />
      <button
        class="btn bare"
        :aria-label="t('tags.dropTag', { tag: r.tag })"
        @click="rows.splice(i, 1)"
      >
        ×
      </button>
    </div>
    <button class="btn bare" @click="rows.push({ tag: '', field: 'extra', split: '' })">
      {{ t('tags.addTag') }}
    </button>
  </div>
</template>

<style scoped>
.form {
  overflow-y: auto;
  padding-right: 4px;
}

.form .sect + .line,
.form .sect + .tag {
  margin-top: 5px;
}

.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  margin-bottom: 12px;
}

.few {
  width: 84px;
  padding: 3px 7px;
}

.wide {
  width: 150px;
  padding: 3px 7px;
}

.tag {
  display: grid;
  grid-template-columns: minmax(70px, 1fr) minmax(0, 1.3fr) minmax(0, 1fr) auto;
  gap: 6px;
  align-items: center;
  padding: 2px 0;
}

.tag .field {
  padding: 3px 7px;
}

@media (max-width: 1000px) {
  .form {
    overflow: visible;
    margin-bottom: 14px;
  }
}
</style>
