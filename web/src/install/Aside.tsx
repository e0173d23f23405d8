import { Button } from '@mantine/core'

import { useChoice, type Plan } from './useInstall'

interface Props {
  spaceId: number
  design: number
  version: number
  plan: Plan
}

/** What was set aside at the wall: holes that strayed, parts that are cut or bought anew, until they are mended or there. */
export function Aside({ spaceId, design, version, plan }: Props) {
  const { say } = useChoice(spaceId, design, version, plan)
  if (plan.aside.length === 0) return null
  return (
    <section className="aside" aria-label="Set aside at the wall">
      <h2>Set aside</h2>
      <ul>
        {plan.aside.map((one) => (
          <li key={`${one.what}-${String(one.place)}`}>
            {one.says}{' '}
            <Button
              size="compact-xs"
              variant="default"
              onClick={() => {
                const rest = <T,>(rows: readonly T[] | undefined) =>
                  (rows ?? []).filter((_, n) => n !== one.place)
                if (one.what === 'again') say({ again: rest(plan.choice.again) }, 'part that is there')
                else say({ strayed: rest(plan.choice.strayed) }, 'hole that is filled')
              }}
            >
              {one.what === 'again' ? 'It is there' : 'It is as if it never was'}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
