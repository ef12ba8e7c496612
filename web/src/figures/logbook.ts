import { api, ask } from '@/api/client'
import { figure } from './figure'

/** What is kept of a search: versions, runs, checks, comments, the written record. */

export const versions = figure(
  'versions',
  ['document', 'look', 'keys', 'vocabulary'],
  (_: null, asked, signal) =>
    ask(api.GET('/api/reviews/{review}/versions', { params: asked, signal })),
)

export const comparedVersions = figure(
  'compared-versions',
  ['look', 'keys'],
  (a: { older: number; newer: number }, { path, query }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/versions/compared', {
        params: { path, query: { ...query, ...a } },
        signal,
      }),
    ),
)

/** Runs, the newest first, from one on. */
export const runs = figure('runs', [], (a: { passing: boolean; page: number }, { path }, signal) =>
  ask(
    api.GET('/api/reviews/{review}/runs', {
      params: { path, query: { before: a.page || undefined, passing: a.passing } },
      signal,
    }),
  ),
)

/** What the last time brought that the time before did not. */
export const since = figure('since', ['keys'], (_: null, { path }, signal) =>
  ask(api.GET('/api/reviews/{review}/since', { params: { path }, signal })),
)

export const watched = figure('watch', [], (_: null, { path }, signal) =>
  ask(api.GET('/api/reviews/{review}/watch', { params: { path }, signal })),
)

export const told = figure('told', [], (_: null, { path }, signal) =>
  ask(api.GET('/api/reviews/{review}/told', { params: { path }, signal })),
)

export const checks = figure('checks', [], (_: null, { path }, signal) =>
  ask(api.GET('/api/reviews/{review}/checks', { params: { path }, signal })),
)

export const checkSheet = figure(
  'check-sheet',
  ['look', 'keys', 'vocabulary'],
  (a: { check: number }, { path, query }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/checks/{check}/sheet', {
        params: { path: { ...path, check: a.check }, query },
        signal,
      }),
    ),
)

export const comments = figure('talk', [], (_: null, { path }, signal) =>
  ask(api.GET('/api/reviews/{review}/notes', { params: { path }, signal })),
)

export const writtenRecord = figure(
  'record',
  ['document', 'anything', 'look'],
  (_: { holdings: number }, asked, signal) =>
    ask(api.GET('/api/reviews/{review}/record', { params: asked, signal })),
)
