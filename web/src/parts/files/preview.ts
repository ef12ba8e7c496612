import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, type Ref } from 'vue'
import { api, ask, type Columns, type FileSettings } from '@/api/client'

/** The first records of a file that is asked about, as they will be with these settings. */
export function usePreview(file: number, settings: Ref<FileSettings>) {
  const asked = refDebounced(
    computed(() => JSON.stringify(settings.value)),
    200,
  )
  const query = useQuery({
    queryKey: computed(() => ['file-preview', file, asked.value]),
    queryFn: ({ signal }) =>
      ask(
        api.POST('/api/imports/{import}/preview', {
          params: { path: { import: file } },
          body: JSON.parse(asked.value) as FileSettings,
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })

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
