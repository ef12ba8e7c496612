import { computed, type Ref } from 'vue'
import { figures, useFigure } from '@/figures'
import { useSources } from '@/state/sources'

/** The lines of the strategy as they are written: for a source, in a dialect, or in CQL, as is wanted. */
export function useWritten(wanted: Ref<string>) {
  const sources = useSources()
  const source = computed(() => sources.all.find((s) => `s${s.id}` === wanted.value))
  const dialects = useFigure(figures.dialects, () => null)
  const dialect = computed(() =>
    dialects.data.value?.find((d) => `d${d.name}` === wanted.value && !d.broken),
  )
  const typing = useFigure(
    figures.typedIn,
    () => ({ dialect: dialect.value?.name, body: dialect.value?.body }),
    { enabled: () => !!dialect.value },
  )
  const typed = computed(() => (dialect.value ? typing.data.value : undefined))
  const asked = useFigure(
    figures.lines,
    () => ({ source: source.value?.id, map: source.value?.map }),
    { keep: true },
  )
  const written = computed(() => asked.data.value)

  return { written, typed, typing, dialect, asked }
}
