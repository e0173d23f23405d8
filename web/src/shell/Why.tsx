import { Popover } from '@mantine/core'

import type { Schemas } from '../api/client'

/** A computed number; opening it shows the rule, the values put in, and who says so. */
export function Why({
  slip,
  label,
  children,
}: {
  slip: Schemas['SlipView']
  label: string
  children: React.ReactNode
}) {
  return (
    <Popover width={300} position="bottom-end" trapFocus shadow="md">
      <Popover.Target>
        <button type="button" className="why" aria-label={`${label}: why?`}>
          {children}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className="small" tabIndex={0} role="note">
          <p className="slip-title">{slip.rule}</p>
          <dl className="facts" style={{ maxHeight: 220, overflow: 'auto' }}>
            {slip.values.map(([name, value], n) => (
              <Fact key={n} name={name} value={value} />
            ))}
          </dl>
          <p className="quiet" style={{ margin: '6px 0 0' }}>
            {slip.basis}: {slip.source}
          </p>
        </div>
      </Popover.Dropdown>
    </Popover>
  )
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <>
      <dt>{name}</dt>
      <dd style={{ textAlign: 'right' }}>{value}</dd>
    </>
  )
}
