import { defineAsyncComponent } from 'vue'

// Charts come when they are first looked at.
export const CandidatePlot = defineAsyncComponent(() => import('./CandidatePlot.vue'))
export const YearsView = defineAsyncComponent(() => import('./YearsView.vue'))
export const SharesView = defineAsyncComponent(() => import('./SharesView.vue'))
export const JournalsView = defineAsyncComponent(() => import('./JournalsView.vue'))
export const HeadingTree = defineAsyncComponent(() => import('./HeadingTree.vue'))
export const TeamsView = defineAsyncComponent(() => import('./TeamsView.vue'))
