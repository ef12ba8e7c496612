import { newId } from './edits'

/** What a call is known by, so that it is made once however often it is sent. */
export function asRequest(id: string) {
  return { 'Tamiz-Request': id }
}

/**
 * Makes a call that is known by the same name until it is answered: where its answer was lost and it is sent again, it is made
 * once. What is said anew, in other words, is another call.
 */
export function useOnce() {
  let id = newId()
  let said = ''
  return async <T>(
    call: (headers: ReturnType<typeof asRequest>) => Promise<T>,
    what: unknown = '',
  ): Promise<T> => {
    const now = JSON.stringify(what)
    if (now !== said) id = newId()
    said = now
    const answer = await call(asRequest(id))
    id = newId()
    return answer
  }
}
