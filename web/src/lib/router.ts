// Addresses are real paths, so that they can be reloaded and sent on.
import navaid, { type Params } from 'navaid'

let router: ReturnType<typeof navaid> | undefined

/** Goes to an address; replaced, it is no step that back undoes. */
export const go = (to: string, replace = false) => router?.route(to, replace)

/** Calls what belongs to each address, now and whenever it changes. */
export function listen(routes: Record<string, (params: Params) => void>, nowhere: () => void) {
  // Before addresses were paths they stood after a hash.
  if (location.hash.startsWith('#/')) history.replaceState(null, '', location.hash.slice(1))
  // Files to be fetched are the browser's own.
  window.addEventListener('click', (e) => {
    const a = (e.target as Element | null)?.closest?.('a')
    if (a && (a.hasAttribute('download') || a.pathname.startsWith('/api/'))) e.stopImmediatePropagation()
  })
  router = navaid('/', nowhere)
  for (const [pattern, show] of Object.entries(routes)) router.on(pattern, (params) => show(params ?? {}))
  router.listen()
}
