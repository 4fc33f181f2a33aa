import 'fake-indexeddb/auto'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { deviceStore, forgetDeviceStore } from '@/web/job/device-store'
import { usePhotoQueue } from '@/web/job/use-photo-queue'

const JOB = '00000000-0000-4000-8000-000000000abc'
const ME = '00000000-0000-4000-8000-00000000aaaa'
const OTHER = '00000000-0000-4000-8000-00000000bbbb'
const answer = vi.fn<() => Promise<unknown>>()
vi.stubGlobal('fetch', async () => Response.json(await answer()))
const refused = (code: string) => async () => ({ ok: false, error: { code } })
const done = async () => ({ ok: true })

const keep = async (id: string, memberId = ME) =>
  (await deviceStore()).keepPhoto({ id, jobId: JOB, memberId, bytes: new Blob(['photo']) })
const kept = async () => (await (await deviceStore()).photos(JOB)).map((p) => p.id)
const open = () =>
  renderHook(() => usePhotoQueue({ jobId: JOB, member: { id: ME, name: 'Tamsin Brack', role: 'lead' } })).result
const later = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms))

beforeEach(() => {
  vi.useFakeTimers({ shouldAdvanceTime: true, toFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval'] })
  answer.mockReset().mockImplementation(done)
  globalThis.indexedDB = new IDBFactory()
  forgetDeviceStore()
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
})

describe('photos kept on a device', () => {
  it('are sent as soon as the job is open', async () => {
    await keep('a')
    await keep('b')
    open()
    await waitFor(async () => expect(await kept()).toEqual([]))
    expect(answer).toHaveBeenCalledTimes(2)
  })

  it.each([
    ['somebody who has to sign in again', refused('not_signed_in')],
    ['a shop that keeps all it can', refused('photo_quota')],
    ['a dead network', async () => Promise.reject(new Error('no network'))],
  ])('stay through %s, and go later', async (_, answers) => {
    answer.mockImplementation(answers)
    await keep('a')
    const queue = open()
    await waitFor(() => expect(queue.current.waiting).toBe(1))
    expect(await kept()).toEqual(['a'])
    answer.mockImplementation(done)
    await later(20_000)
    await waitFor(() => expect(queue.current.waiting).toBe(0))
    expect(await kept()).toEqual([])
    expect(queue.current.fault).toBeNull()
  })

  it('one that is no photo is given up with its reason, and holds back no other', async () => {
    answer.mockImplementationOnce(refused('not_a_photo')).mockImplementation(refused('photo_quota'))
    await keep('a')
    await keep('b')
    const queue = open()
    await waitFor(() => expect(queue.current.fault).toEqual({ code: 'photo_quota' }))
    expect(await kept()).toEqual(['b'])
  })

  it('of somebody else on the same tablet stay theirs', async () => {
    await keep('a', OTHER)
    const queue = open()
    await later(20_000)
    expect(answer).not.toHaveBeenCalled()
    expect(await kept()).toEqual(['a'])
    expect(queue.current.waiting).toBe(0)
  })
})
