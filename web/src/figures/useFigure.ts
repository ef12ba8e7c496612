import {
  keepPreviousData,
  useInfiniteQuery,
  useQuery,
  useQueryClient,
  type Query,
  type QueryKey,
} from '@tanstack/vue-query'
import { computed } from 'vue'
import { useReview } from '@/state/review'
import { keyOf, type Figure } from './figure'

/** How a figure is asked for where it stands. */
export interface Options<Answer> {
  /** Whether it is asked for now. */
  enabled?: () => boolean
  /** What was there stays until there is more: always, or where that says so. */
  keep?: boolean | ((before: QueryKey) => boolean)
  /** Asked again after so many milliseconds, where something goes on in the background whose news may be missed. */
  again?: (query: Query<Answer>) => number | false
  /** Not asked again by itself where it was refused. */
  once?: boolean
  /** How long an answer holds, and how long it stays when nobody looks at it, in milliseconds. */
  holds?: number
  stays?: number
}

/** Asks for a figure, and asks anew whenever what it rests on, or what is asked, is another. */
export function useFigure<Args, Answer>(
  figure: Figure<Args, Answer>,
  args: () => Args,
  options: Options<Answer> = {},
) {
  const review = useReview()
  const keep = options.keep
  const enabled = () => (figure.house || review.id > 0) && (options.enabled?.() ?? true)
  return useQuery<Answer>({
    queryKey: computed(() => keyOf(figure, review, args())),
    queryFn: ({ signal }) => figure.ask(args(), review.asked, signal),
    enabled,
    placeholderData:
      typeof keep === 'function'
        ? (before, query) => (query && keep(query.queryKey) ? before : undefined)
        : keep
          ? keepPreviousData
          : undefined,
    ...(options.again ? { refetchInterval: options.again } : {}),
    ...(options.once ? { retry: false } : {}),
    ...(options.holds !== undefined ? { staleTime: options.holds } : {}),
    ...(options.stays !== undefined ? { gcTime: options.stays } : {}),
  })
}

/** The same for a list that comes page by page: page is put into what is asked. */
export function usePages<Args extends object, Answer>(
  figure: Figure<Args & { page: number }, Answer>,
  args: () => Args,
  next: (last: Answer, all: Answer[]) => number | undefined,
) {
  const review = useReview()
  return useInfiniteQuery({
    queryKey: computed(() => keyOf(figure, review, { ...args(), page: -1 })),
    queryFn: ({ pageParam, signal }) =>
      figure.ask({ ...args(), page: pageParam }, review.asked, signal),
    initialPageParam: 0,
    getNextPageParam: (last, all) => next(last, all),
    enabled: () => review.id > 0,
    placeholderData: keepPreviousData,
  })
}

/** Has figures be asked for anew, wherever they stand: something that they are made of may have changed. It ends when they are there. */
export function useFresh() {
  const client = useQueryClient()
  return async (...which: Pick<Figure<never, unknown>, 'name'>[]) => {
    await Promise.all(which.map((f) => client.invalidateQueries({ queryKey: [f.name] })))
  }
}
