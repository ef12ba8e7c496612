<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import DraftField from '@/parts/DraftField.vue'
import { groups, shown, withMember, type Member } from './dialectForm'

/** A dialect's file as a form, part by part; one that ships is only shown. */
const props = defineProps<{ body: Record<string, unknown>; fixed: boolean }>()
const emit = defineEmits<{ change: [body: Record<string, unknown>] }>()
const { t, te } = useI18n()

const put = (m: Member, typed: string) => emit('change', withMember(props.body, m, typed))
const label = (m: Member) =>
  m.path === 'about'
    ? t('dialect.aboutIt')
    : t(`dialect.${m.path.replace('fields.', 'fieldOf_').replace('.', '_')}`)
const rows = (m: Member) => Math.max(1, shown(props.body, m).split('\n').length)
function said(m: Member, x: string) {
  if (m.path === 'bare') return x ? t(`field.${x}`) : t('dialect.nowhere')
  return t(`dialect.choice.${x}`)
}
</script>

<template>
  <div>
    <details v-for="(members, name, i) in groups" :key="name" class="card part" :open="i === 0">
      <summary>
        <b>{{ t(`dialect.part.${name}`) }}</b>
      </summary>
      <p v-if="te(`dialect.hint.${name}`)" class="small">{{ t(`dialect.hint.${name}`) }}</p>
      <div class="members">
        <label v-for="m in members" :key="m.path" :class="{ check: m.how === 'check' }">
          <input
            v-if="m.how === 'check'"
            type="checkbox"
            :disabled="fixed"
            :checked="shown(body, m) === 'true'"
            @change="put(m, String(($event.target as HTMLInputElement).checked))"
          />
          <span class="small">{{ label(m) }}</span>
          <select
            v-if="Array.isArray(m.how)"
            class="field"
            :disabled="fixed"
            :value="shown(body, m)"
            @change="put(m, ($event.target as HTMLSelectElement).value)"
          >
            <option v-for="x in m.how" :key="x" :value="x">{{ said(m, x) }}</option>
          </select>
          <DraftField
            v-else-if="m.how !== 'check'"
            class="field"
            :class="{ mono: m.how !== 'area' && m.path !== 'title' }"
            :value="shown(body, m)"
            :disabled="fixed"
            :maxlength="2000"
            :lines="
              m.how === 'area' ? 3 : m.how === 'text' || m.how === 'number' ? undefined : rows(m)
            "
            :inputmode="m.how === 'number' ? 'numeric' : undefined"
            @typed="(x: string) => put(m, x)"
          />
        </label>
      </div>
    </details>
  </div>
</template>

<style scoped>
.part {
  padding: 9px 13px;
  margin-bottom: 8px;
}

.part summary {
  cursor: pointer;
}

.members {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 7px 12px;
  margin-top: 8px;
  align-items: end;
}

.members .field {
  display: block;
  width: 100%;
  box-sizing: border-box;
  padding: 4px 8px;
}

.members textarea {
  resize: vertical;
}

.check {
  display: flex;
  gap: 7px;
  align-items: center;
}

@media (max-width: 1000px) {
  .members {
    grid-template-columns: 1fr;
  }
}
</style>
