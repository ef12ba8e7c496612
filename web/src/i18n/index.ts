import { createI18n } from 'vue-i18n'
import en from './en'
import blocks from './blocks'
import files from './files'
import harvest from './harvest'
import headings from './headings'
import logbook from './logbook'
import sources from './sources'
import strategy from './strategy'
import studies from './studies'

export const i18n = createI18n({
  legacy: false,
  locale: 'en-GB',
  fallbackLocale: 'en-GB',
  messages: {
    'en-GB': {
      ...en,
      ...sources,
      ...files,
      ...harvest,
      ...blocks,
      ...headings,
      ...strategy,
      ...logbook,
      ...studies,
      screen: {
        ...en.screen,
        ...headings.screen,
        ...strategy.screen,
        ...logbook.screen,
        ...studies.screen,
        ...sources.screen,
        ...files.screen,
      },
      remark: { ...blocks.remark, ...headings.remark },
      strip: { ...en.strip, ...sources.strip },
      change: {
        ...en.change,
        ...sources.change,
        ...files.change,
        ...blocks.change,
        ...headings.change,
        ...strategy.change,
        ...logbook.change,
      },
      notice: { ...en.notice, ...files.notice },
    },
  },
  numberFormats: {
    'en-GB': {
      whole: { maximumFractionDigits: 0 },
      one: { minimumFractionDigits: 1, maximumFractionDigits: 1 },
      two: { minimumFractionDigits: 2, maximumFractionDigits: 2 },
      share: { style: 'percent', maximumFractionDigits: 0 },
    },
  },
  datetimeFormats: {
    'en-GB': {
      day: { day: 'numeric', month: 'short', year: 'numeric' },
      short: { day: 'numeric', month: 'short' },
      time: { hour: '2-digit', minute: '2-digit', hour12: false },
    },
  },
})
