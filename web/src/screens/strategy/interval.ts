import { useI18n } from 'vue-i18n'
import type { OverlapFigure } from '@/api/client'

/** Writes a number of works: as it was counted, or as an estimate with its interval. */
export function useInterval() {
  const { t, n } = useI18n()
  return (f: OverlapFigure): string =>
    f.low === f.high
      ? n(f.works, 'whole')
      : t('everywhere.about', {
          n: n(f.works, 'whole'),
          low: n(f.low, 'whole'),
          high: n(f.high, 'whole'),
        })
}
