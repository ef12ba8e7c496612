import type { Limit } from '@/api/client'

/** What a limit says in words: the years it is from and to, what it lets in, or what it keeps out. */
export function limitText(
  limit: Limit,
  t: (key: string, named: Record<string, unknown>) => string,
): string {
  if (limit.kind === 'years')
    return t('bench.years', { from: limit.from ?? '…', to: limit.to ?? '…' })
  const to = [...(limit.values ?? []), ...(limit.titles?.length ? [t('shape.orTitles', {})] : [])]
  return limit.against?.length
    ? t('shape.notAgainst', { against: limit.against.join(', '), but: to.join(', ') })
    : to.join(', ')
}
