import { api, ask, type FileSettings, type RoughConcept } from '@/api/client'
import { ofHouse } from './figure'

/** What belongs to the program, or is asked of a source or a file, whatever review is open. */

export const reviews = ofHouse('reviews', (_: null, signal) =>
  ask(api.GET('/api/reviews', { signal })),
)

export const sources = ofHouse('sources', (_: null, signal) =>
  ask(api.GET('/api/sources', { signal })),
)

export const dialects = ofHouse('dialects', (_: null, signal) =>
  ask(api.GET('/api/dialects', { signal })),
)

/** What a dialect that is being written says of itself. */
export const dialectTried = ofHouse('dialect-tried', (body: { body: string }, signal) =>
  ask(api.POST('/api/dialects/tried', { body, signal })),
)

export const readers = ofHouse('readers', (_: null, signal) =>
  ask(api.GET('/api/readers', { signal })),
)

export const keptBlocks = ofHouse('kept-blocks', (_: null, signal) =>
  ask(api.GET('/api/kept-blocks', { signal })),
)

/** The vocabularies; they are asked for anew when the review goes by another. */
export const vocabularies = ofHouse('vocabularies', (_: { own?: number }, signal) =>
  ask(api.GET('/api/vocabularies', { signal })),
)

/** What an edition of a vocabulary says otherwise than an earlier one. */
export const vocabularyChanges = ofHouse(
  'vocabulary-changes',
  (a: { vocabulary: number; since?: number }, signal) =>
    ask(
      api.GET('/api/vocabularies/{vocabulary}/changes', {
        params: { path: { vocabulary: a.vocabulary }, query: { since: a.since } },
        signal,
      }),
    ),
)

/** How a file would be read. */
export const filePreview = ofHouse(
  'file-preview',
  (a: { file: number; settings: FileSettings }, signal) =>
    ask(
      api.POST('/api/imports/{import}/preview', {
        params: { path: { import: a.file } },
        body: a.settings,
        signal,
      }),
    ),
)

/** What could not be read of a file as it stood. */
export const notices = ofHouse('notices', (a: { file: number }, signal) =>
  ask(api.GET('/api/imports/{import}/notices', { params: { path: { import: a.file } }, signal })),
)

/** The words beside one in the index of a source. */
export const neighbours = ofHouse('neighbours', (a: { source: number; word: string }, signal) =>
  ask(
    api.GET('/api/sources/{source}/neighbours', {
      params: { path: { source: a.source }, query: { word: a.word, field: 'text' } },
      signal,
    }),
  ),
)

/** How often forms of words are in the index of a source. */
export const stems = ofHouse('stems', (a: { source: number; forms: string[] }, signal) =>
  ask(
    api.GET('/api/sources/{source}/stems', {
      params: { path: { source: a.source }, query: { form: a.forms } },
      signal,
    }),
  ),
)

/** What rough words would find at a source. */
export const preview = ofHouse(
  'preview',
  (a: { source: number; concepts: RoughConcept[] }, signal) =>
    ask(
      api.POST('/api/sources/{source}/preview', {
        params: { path: { source: a.source } },
        body: { concepts: a.concepts },
        signal,
      }),
    ),
)
