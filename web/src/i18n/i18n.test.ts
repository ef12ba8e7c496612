import { expect, it } from 'vitest'
import blocks from './blocks'
import en from './en'
import files from './files'
import harvest from './harvest'
import headings from './headings'
import logbook from './logbook'
import { i18n } from './index'
import sources from './sources'
import strategy from './strategy'

it('no group of words is lost behind another of its name', () => {
  const all = i18n.global.messages.value['en-GB'] as Record<string, Record<string, unknown>>
  for (const part of [en, sources, files, harvest, blocks, headings, strategy, logbook])
    for (const [group, words] of Object.entries(part))
      if (typeof words === 'object')
        for (const key of Object.keys(words))
          expect(all[group], `${group}.${key}`).toHaveProperty([key])
})
