'use client'

import type { Fault } from '@/core/kit/result'
import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import { zodResolver } from '@hookform/resolvers/zod'
import { FilterBox, WordSelect } from '@/web/kit/fields'
import { SortableTable, type SortableColumn } from '@/web/kit/sortable-table'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { z } from 'zod'
import { addMember, setRole } from '@/web/actions/shop'
import { call } from '@/web/kit/call'
import { useOnce } from '@/web/kit/use-once'
import { words } from '@/web/words/names'
import { faultText } from '@/web/words/faults'

interface Person {
  id: string
  name: string
  email: string
  role: string
}
const Fields = z.object({
  name: z.string().trim().min(1, 'Enter a name.').max(120),
  email: z.email('Enter an e-mail address.'),
  password: z.string().min(10, 'At least 10 characters.').max(128),
  role: z.enum(['owner', 'lead', 'installer', 'desk']),
})
const MAY_DO: Record<string, string> = {
  owner: 'everything, and who belongs to the shop',
  lead: 'plans, stock, bay',
  installer: 'bay: steps, readings, film used; reads all',
  desk: 'takes jobs in, walkaround; reads all',
}

/** Who belongs to the shop, and what each may do. */
export function ShopPeople({ people, owner }: { people: Person[]; owner: boolean }) {
  const router = useRouter()
  const [fault, setFault] = useState<string | null>(null)
  const [text, setText] = useState('')
  const { register, handleSubmit, formState, reset } = useForm<z.infer<typeof Fields>>({
    resolver: zodResolver(Fields),
    defaultValues: { role: 'installer' },
  })
  const done = (out: { ok: true } | { ok: false; error: Fault }) => {
    setFault(out.ok ? null : faultText(out.error))
    if (out.ok) router.refresh()
    return out.ok
  }
  const add = useOnce(async (v: z.infer<typeof Fields>) => {
    if (done(await call(addMember, v))) reset()
  })
  const columns: SortableColumn<Person>[] = [
    { header: 'Name', accessorKey: 'name' },
    { header: 'E-mail', accessorKey: 'email' },
    {
      header: 'Role',
      accessorKey: 'role',
      cell: ({ row: { original: p } }) =>
        owner ? (
          <WordSelect
            list="role"
            className="form-select form-select-sm w-auto"
            aria-label={`Role of ${p.name}`}
            value={p.role}
            onCode={async (code) => void done(await call(setRole, { memberId: p.id, role: code }))}
          />
        ) : (
          p.role
        ),
    },
    {
      header: 'May',
      accessorFn: (p) => MAY_DO[p.role] ?? '',
      cell: ({ getValue }) => <span className="label">{getValue()}</span>,
    },
  ]
  return (
    <>
      {fault && (
        <p className="text-danger" role="alert">
          {fault}
        </p>
      )}
      <section className="mb-3">
        <div className="d-flex gap-2 align-items-center mb-2">
          <h2 className="mb-0">Members</h2>
          <span className="ms-auto">
            <FilterBox label="Filter people" value={text} onText={setText} />
          </span>
        </div>
        <SortableTable
          label="People"
          rows={people}
          columns={columns}
          rowKey={(p) => p.id}
          filter={text}
          none={`Nobody matches “${text}”.`}
        />
      </section>
      {owner && (
        <Form className="plate row gx-2 mx-0 align-items-end" noValidate onSubmit={handleSubmit(add)}>
          <h2 className="col-12">Somebody new</h2>
          {(
            [
              ['name', 'Name', 'text'],
              ['email', 'E-mail', 'email'],
              ['password', 'First password', 'password'],
            ] as const
          ).map(([k, label, type]) => (
            <div className="col-md-3" key={k}>
              <label className="form-label" htmlFor={`m-${k}`}>
                {label}
              </label>
              <Form.Control id={`m-${k}`} type={type} autoComplete="off" {...register(k)} />
              {formState.errors[k] && <span className="text-danger">{formState.errors[k]?.message}</span>}
            </div>
          ))}
          <div className="col-md-1">
            <label className="form-label" htmlFor="m-role">
              Role
            </label>
            <Form.Select id="m-role" {...register('role')}>
              {words('role').map(([code, text]) => (
                <option key={code} value={code}>
                  {text}
                </option>
              ))}
            </Form.Select>
          </div>
          <div className="col-md-2">
            <Button type="submit" className="w-100" disabled={formState.isSubmitting}>
              {formState.isSubmitting ? 'Adding…' : 'Add'}
            </Button>
          </div>
        </Form>
      )}
    </>
  )
}
