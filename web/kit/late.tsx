import { use, type ComponentType } from 'react'

/** A part of the page that is loaded after it. */
export interface Late<T> {
  /** Null until it is there. */
  now: () => T | null
  /** Loads it once; asked again after it failed, it tries again. */
  load: () => Promise<T>
}

const all: Late<unknown>[] = []

export function late<T>(bring: () => Promise<T>): Late<T> {
  let here: T | null = null
  let coming: Promise<T> | null = null
  const part: Late<T> = {
    now: () => here,
    load: () =>
      (coming ??= bring().then(
        (it) => (here = it),
        (fault: unknown) => {
          coming = null
          throw fault
        },
      )),
  }
  all.push(part)
  return part
}

/** A component that is loaded when it is first shown, or before that by `loadTheRest`: it stands within a Suspense. */
export function lateComponent<P extends object>(bring: () => Promise<ComponentType<P>>) {
  const part = late(bring)
  return function Late(props: P) {
    // What is there already is drawn at once.
    const Component = part.now() ?? use(part.load())
    return <Component {...props} />
  }
}

/** Loads all that was left for later, so that nothing is missing once the network is gone. */
export const loadTheRest = (): Promise<unknown> => Promise.allSettled(all.map((part) => part.load()))

/** Runs once the page has nothing else to do; the function that comes back calls it off. */
export function whenIdle(run: () => void): () => void {
  // Some browsers have no idle callback.
  if (!('requestIdleCallback' in window)) {
    const timer = setTimeout(run, 200)
    return () => clearTimeout(timer)
  }
  const asked = requestIdleCallback(run, { timeout: 500 })
  return () => cancelIdleCallback(asked)
}
