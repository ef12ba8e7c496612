<script setup lang="ts">
import { computed } from 'vue'
import { useClash } from '@/state/clash'
import { useI18n } from 'vue-i18n'
import { canKeepMine } from '@/state/queue'
import { useReview } from '@/state/review'

/** Two people changed the same thing: what each made of it, side by side, and a clear choice. */
const { t } = useI18n()
const review = useReview()
const { named, side } = useClash()

const rows = computed(
  () =>
    review.conflict?.clashes.map((c) => ({
      name: named(c),
      mine: side(c, 'mine'),
      theirs: side(c, 'theirs'),
    })) ?? [],
)
const mineToo = computed(() => review.conflict !== undefined && canKeepMine(review.conflict))
</script>

<template>
  <v-dialog
    :model-value="!!review.conflict"
    persistent
    :max-width="640"
    :aria-label="t('conflict.title')"
  >
    <v-card v-if="review.conflict" class="conflict">
      <h2 class="display">{{ t('conflict.title') }}</h2>
      <p>{{ t('conflict.text') }}</p>
      <div class="frame">
        <table>
          <thead>
            <tr>
              <th scope="col">{{ t('conflict.both') }}</th>
              <th scope="col">{{ t('conflict.mine') }}</th>
              <th scope="col">{{ t('conflict.theirs') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(r, i) in rows" :key="i">
              <th scope="row">{{ r.name }}</th>
              <td class="mono mine">{{ r.mine }}</td>
              <td class="mono">{{ r.theirs }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div class="acts">
        <button v-if="mineToo" class="btn" @click="review.settle('mine')">
          {{ t('conflict.takeMine') }}
        </button>
        <button class="btn outline" @click="review.settle('theirs')">
          {{ t('conflict.takeTheirs') }}
        </button>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.conflict {
  padding: 18px 20px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

p {
  margin-top: 6px;
}

.frame {
  max-height: 300px;
  overflow-y: auto;
  margin: 14px 0;
}

table {
  width: 100%;
}

th,
td {
  padding: 4px 10px 4px 0;
  text-align: left;
  vertical-align: top;
  overflow-wrap: anywhere;
}

tbody th {
  width: 34%;
  font-weight: 400;
}

td.mine {
  background: var(--gold-soft);
  padding-left: 6px;
  border-radius: 3px;
}

.acts {
  display: flex;
  gap: 8px;
}
</style>
