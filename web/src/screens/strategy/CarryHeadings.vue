<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type TypedStrategy } from '@/api/client'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'

/** The headings in the vocabulary of another source: each is accepted or declined, and remembered for the next review. */
const props = defineProps<{ carry: NonNullable<TypedStrategy['carry']> }>()
const { t } = useI18n()
const review = useReview()
const problem = useProblem()
const client = useQueryClient()
const wrong = ref('')

async function decide(heading: string, stands?: string, forget = false) {
  wrong.value = ''
  try {
    await ask(
      api.POST('/api/reviews/{review}/counterparts', {
        params: { path: { review: review.id } },
        body: { heading, vocabulary: props.carry.vocabulary, stands, forget },
      }),
    )
    await client.invalidateQueries({ queryKey: ['typed'] })
  } catch (error) {
    wrong.value = problem(error)
  }
}
</script>

<template>
  <section class="card" :aria-label="t('carry.title', { vocabulary: carry.vocabulary })">
    <h2 class="sect">{{ t('carry.title', { vocabulary: carry.vocabulary }) }}</h2>
    <p class="small">
      {{ t(carry.there ? 'carry.says' : 'carry.notThere', { vocabulary: carry.vocabulary }) }}
    </p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <ul>
      <li v-for="h in carry.headings" :key="h.heading">
        <b class="own">{{ h.heading }}</b>
        <div v-if="h.stands || h.declined" class="row">
          <span class="small">{{
            h.stands ? t('carry.stands', { heading: h.stands }) : t('carry.declined')
          }}</span>
          <button
            class="btn bare"
            :aria-label="t('carry.otherwiseLabel', { heading: h.heading })"
            @click="decide(h.heading, undefined, true)"
          >
            {{ t('carry.otherwise') }}
          </button>
        </div>
        <template v-else>
          <p v-if="!h.proposals.length" class="small">{{ t('carry.none') }}</p>
          <div v-for="p in h.proposals" :key="p.heading" class="proposal">
            <div class="row">
              <span class="chip" :title="p.scopeNote"
                ><b>{{ p.heading }}</b></span
              >
              <span class="small grow">{{
                t(`carry.via.${p.via}`, { matched: p.matched ?? '' })
              }}</span>
              <button
                class="btn outline slim"
                :aria-label="t('carry.takeLabel', { heading: p.heading, for: h.heading })"
                @click="decide(h.heading, p.heading)"
              >
                {{ t('carry.take') }}
              </button>
            </div>
            <p v-if="p.scopeNote" class="small">{{ p.scopeNote }}</p>
          </div>
          <button
            v-if="h.proposals.length"
            class="btn bare"
            :aria-label="t('carry.declineLabel', { heading: h.heading })"
            @click="decide(h.heading, '')"
          >
            {{ t('carry.decline') }}
          </button>
        </template>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.card {
  padding: 10px 12px;
  margin-top: 14px;
}

li {
  border-top: 1px solid var(--line-soft);
  padding: 7px 0;
  margin-top: 6px;
}

.own {
  font-weight: 650;
}

.proposal {
  margin-top: 4px;
}

.slim {
  padding: 2px 9px;
}

.wrong {
  color: var(--miss);
}
</style>
