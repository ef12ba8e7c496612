import { createRouter, createWebHistory } from 'vue-router'

export const screens = [
  'question',
  'samples',
  'harvest',
  'headings',
  'blocks',
  'coverage',
  'strategy',
  'logbook',
] as const
export type Screen = (typeof screens)[number]

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'reviews', component: () => import('./screens/reviews/ReviewsScreen.vue') },
    {
      path: '/reviews/:review(\\d+)',
      component: () => import('./screens/ReviewFrame.vue'),
      children: [
        { path: '', redirect: { name: 'question' } },
        {
          path: 'question',
          name: 'question',
          component: () => import('./screens/question/QuestionScreen.vue'),
        },
        {
          path: 'samples',
          name: 'samples',
          component: () => import('./screens/samples/SamplesScreen.vue'),
        },
        {
          path: 'studies',
          name: 'studies',
          component: () => import('./screens/studies/StudiesScreen.vue'),
        },
        {
          path: 'sources',
          name: 'sources',
          component: () => import('./screens/sources/SourcesScreen.vue'),
        },
        {
          path: 'shelf',
          name: 'shelf',
          component: () => import('./screens/shelf/ShelfScreen.vue'),
        },
        {
          path: 'harvest',
          name: 'harvest',
          component: () => import('./screens/harvest/HarvestScreen.vue'),
        },
        {
          path: 'headings',
          name: 'headings',
          component: () => import('./screens/headings/HeadingsScreen.vue'),
        },
        {
          path: 'blocks',
          name: 'blocks',
          component: () => import('./screens/blocks/BlocksScreen.vue'),
        },
        {
          path: 'coverage',
          name: 'coverage',
          component: () => import('./screens/coverage/CoverageScreen.vue'),
        },
        {
          path: 'strategy',
          name: 'strategy',
          component: () => import('./screens/strategy/StrategyScreen.vue'),
        },
        {
          path: 'logbook',
          name: 'logbook',
          component: () => import('./screens/logbook/LogbookScreen.vue'),
        },
      ],
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})
