'use client'

import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import { zodResolver } from '@hookform/resolvers/zod'
import { useRouter } from 'next/navigation'
import { useEffect, useState } from 'react'
import { useForm } from 'react-hook-form'
import { z } from 'zod'
import { endStandIn } from '@/web/job/at-this-tablet'
import { useHydrated } from '@/web/kit/use-hydrated'
import { faultText } from '@/web/words/faults'
import './sign-in.scss'

const Door = z.object({
  email: z.email('Enter the address you were given.'),
  password: z.string().min(1, 'Enter your password.'),
})
const post = (url: string, body?: unknown) =>
  fetch(url, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body ?? {}) })

export function SignIn({ demo }: { demo: boolean }) {
  const router = useRouter()
  const alive = useHydrated()
  const [fault, setFault] = useState<string | null>(null)
  const { register, handleSubmit, formState } = useForm<z.infer<typeof Door>>({ resolver: zodResolver(Door) })
  useEffect(endStandIn, [])
  const enter = async (response: Promise<Response>) => {
    try {
      const r = await response
      if (!r.ok)
        return setFault(
          faultText({
            code: r.status === 429 ? 'too_many_attempts' : r.status === 401 ? 'wrong_sign_in' : 'no_answer',
          }),
        )
      setFault(null)
      router.push('/')
      router.refresh()
    } catch {
      setFault(faultText({ code: 'no_answer' }))
    }
  }
  return (
    <main className="sign-in-page d-grid p-3">
      <div className="plate" style={{ width: 'min(420px, 100%)' }}>
        <h1 className="mb-1">Cuirass</h1>
        <p className="label mb-3">Measured, laid out, heated, recorded: a wrap from tape to handover.</p>
        <Form method="post" onSubmit={handleSubmit((v) => enter(post('/api/auth/sign-in/email', v)))} noValidate>
          <fieldset disabled={!alive}>
            <label className="form-label" htmlFor="email">
              E-mail
            </label>
            <Form.Control id="email" autoComplete="username" type="email" {...register('email')} />
            {formState.errors.email && <p className="text-danger mb-0">{formState.errors.email.message}</p>}
            <label className="form-label mt-3" htmlFor="password">
              Password
            </label>
            <Form.Control id="password" autoComplete="current-password" type="password" {...register('password')} />
            {formState.errors.password && <p className="text-danger mb-0">{formState.errors.password.message}</p>}
            <Button type="submit" className="w-100 mt-3" disabled={formState.isSubmitting}>
              Sign in
            </Button>
          </fieldset>
        </Form>
        {fault && (
          <p className="text-danger mt-2 mb-0" role="alert">
            {fault}
          </p>
        )}
        {demo && (
          <div className="mt-4 pt-3 border-top">
            <p className="label mb-2">Demo shop, Saltmarsh Film &amp; Wrap. Go in as</p>
            <div className="d-flex gap-2 flex-wrap">
              {['lead', 'owner', 'installer', 'desk'].map((role) => (
                <Button
                  variant="outline-secondary"
                  size="sm"
                  key={role}
                  disabled={!alive}
                  onClick={() => void enter(post(`/api/demo-sign-in?role=${role}`))}
                >
                  {role === 'lead' ? 'Lead (demo)' : role}
                </Button>
              ))}
            </div>
          </div>
        )}
      </div>
    </main>
  )
}
