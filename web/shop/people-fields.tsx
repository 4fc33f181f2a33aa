import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import Table from 'react-bootstrap/Table'
import { useFieldArray, useFormContext } from 'react-hook-form'
import { newId } from '@/web/kit/call'
import { words } from '@/web/words/names'
import { AddRow } from './add-row'
import { ShopField } from './shop-field'
import type { ShopValues } from './shop-values'

/** Hands of the shop: what each can do, how fast, at what rate, and when away. */
export function PeopleFields() {
  const { register, watch } = useFormContext<ShopValues>()
  const { fields, append, remove } = useFieldArray<ShopValues, 'people', 'key'>({ name: 'people', keyName: 'key' })
  return (
    <section className="plate mb-3 scroll-x" aria-label="Hands">
      <h2>Hands</h2>
      {fields.length === 0 ? (
        <p className="label">Nobody yet: schedules take the crew of each job.</p>
      ) : (
        <Table>
          <thead>
            <tr>
              <th>Name</th>
              <th>Skills</th>
              <th>Pace, 1 = experienced</th>
              <th>Rate an hour</th>
              <th>Away, one a line</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {fields.map((person, i) => (
              <tr key={person.key}>
                <td>
                  <ShopField hidden name={`people.${i}.name`} label={`Name of person ${i + 1}`} />
                </td>
                <td>
                  {words('skill').map(([code, text]) => (
                    <Form.Check
                      key={code}
                      inline
                      type="checkbox"
                      id={`skill-${i}-${code}`}
                      label={text}
                      value={code}
                      {...register(`people.${i}.skills`)}
                    />
                  ))}
                </td>
                <td>
                  <ShopField hidden name={`people.${i}.pace`} label={`Pace of person ${i + 1}`} />
                </td>
                <td>
                  <ShopField hidden name={`people.${i}.rate`} label={`Rate of person ${i + 1}`} />
                </td>
                <td>
                  <ShopField
                    hidden
                    name={`people.${i}.away`}
                    label={`Days away of person ${i + 1}`}
                    rows={2}
                    placeholder="2026-08-03 to 2026-08-14"
                  />
                </td>
                <td>
                  <Button variant="outline-secondary" size="sm" onClick={() => remove(i)}>
                    Take out {watch(`people.${i}.name`)}
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      <AddRow
        label="Add a person"
        onAdd={() => append({ id: newId(), name: '', skills: [], pace: '1', rate: '0', away: '' })}
      />
    </section>
  )
}
