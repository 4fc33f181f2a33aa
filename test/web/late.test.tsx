import { act, render } from '@testing-library/react'
import { Suspense } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { late, lateComponent, loadTheRest } from '@/web/kit/late'

describe('what is loaded after the page', () => {
  it('is brought once, however often it is asked for', async () => {
    const bring = vi.fn(() => Promise.resolve('here'))
    const part = late(bring)
    expect(part.now()).toBeNull()
    expect(await Promise.all([part.load(), part.load()])).toEqual(['here', 'here'])
    expect(part.now()).toBe('here')
    await loadTheRest()
    expect(bring).toHaveBeenCalledTimes(1)
  })

  it('is tried again after the network failed, and one that fails keeps none of the others back', async () => {
    const bring = vi.fn<() => Promise<string>>().mockRejectedValueOnce(new Error('offline')).mockResolvedValue('here')
    const [weak, other] = [late(bring), late(() => Promise.resolve('too'))]
    await loadTheRest()
    expect(weak.now()).toBeNull()
    expect(other.now()).toBe('too')
    expect(await weak.load()).toBe('here')
  })

  it('a component stands in its place once it is there; loaded before, it is drawn at once', async () => {
    const Told = ({ name }: { name: string }) => <p>{name} is here</p>
    let come = (_: typeof Told) => {}
    const Shown = lateComponent(() => new Promise<typeof Told>((here) => (come = here)))
    const view = (
      <Suspense fallback="a moment">
        <Shown name="Heat" />
      </Suspense>
    )
    const first = await act(() => Promise.resolve(render(view)))
    expect(first.container.textContent).toBe('a moment')
    await act(() => Promise.resolve(come(Told)))
    expect(first.container.textContent).toBe('Heat is here')
    first.unmount()
    expect(render(view).container.textContent).toBe('Heat is here')
  })
})
