import { useI18n } from 'vue-i18n'
import { type Version } from '@/api/client'
import { figures, useFigure } from '@/figures'

/** The versions of the review, the oldest first, and what holds now as the last. */
export function useVersions() {
  return useFigure(figures.versions, () => null, { keep: true })
}

/** Says what a version is called: as somebody named it, or before which step it was kept by itself. */
export function useVersionName() {
  const { t, te } = useI18n()
  return (v: Version): string =>
    v.name ||
    (v.id === 0
      ? t('versions.now')
      : te(`versions.why.${v.why}`)
        ? t(`versions.why.${v.why}`)
        : t('versions.why.other'))
}
