import { refDebounced } from '@vueuse/core'
import { computed, type Ref } from 'vue'
import { api, ask, type Columns, type FileSettings } from '@/api/client'
import { figures, useFigure } from '@/figures'

/** The first records of a file that is asked about, as they will be with these settings. */
export function usePreview(file: number, settings: Ref<FileSettings>) {
  const asked = refDebounced(
    computed(() => JSON.stringify(settings.value)),
    200,
  )
  const query = useFigure(
    figures.filePreview,
    () => ({ file, settings: JSON.parse(asked.value) as FileSettings }),
    { keep: true, once: true },
  )

  /** The columns as they are guessed with another delimiter or quote. */
  async function refill(columns: Columns): Promise<Columns | undefined> {
    const p = await ask(
      api.POST('/api/imports/{import}/preview', {
        params: { path: { import: file }, query: { refill: true } },
        body: { columns },
      }),
    )
    return p.settings.columns
  }

  return { preview: query.data, looking: query.isFetching, refill }
}
