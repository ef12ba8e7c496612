import { createI18n } from 'vue-i18n'
import en from './en'

export const i18n = createI18n({
  legacy: false,
  locale: 'en-GB',
  fallbackLocale: 'en-GB',
  messages: { 'en-GB': en },
  numberFormats: { 'en-GB': { whole: { maximumFractionDigits: 0 }, one: { minimumFractionDigits: 1, maximumFractionDigits: 1 }, share: { style: 'percent', maximumFractionDigits: 0 } } },
  datetimeFormats: { 'en-GB': { day: { day: 'numeric', month: 'short', year: 'numeric' }, time: { hour: '2-digit', minute: '2-digit', hour12: false } } },
})
