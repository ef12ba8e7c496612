import { until, useStorage, useWindowSize } from '@vueuse/core'
import { computed, nextTick, useTemplateRef } from 'vue'

/** The plot folds away: by itself where the window is low, until someone says otherwise. */
export function usePlotting() {
  const plot = useTemplateRef<{ save: (name: string, as: 'png' | 'svg') => void }>('plot')
  const { height } = useWindowSize()
  const unfolded = useStorage<'auto' | 'yes' | 'no'>('tamiz-plot', 'auto')
  const plotted = computed({
    get: () => (unfolded.value === 'auto' ? height.value >= 740 : unfolded.value === 'yes'),
    set: (wanted) => (unfolded.value = wanted ? 'yes' : 'no'),
  })

  /** Saves the plot; where it is folded away, it comes first. */
  async function savePlot(name: string, as: 'png' | 'svg') {
    if (!plotted.value) plotted.value = true
    await until(plot).toBeTruthy({ timeout: 5000 })
    await nextTick()
    plot.value?.save(name, as)
  }

  return { plotted, savePlot }
}
