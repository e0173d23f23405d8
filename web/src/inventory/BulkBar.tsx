import { Button, NativeSelect } from '@mantine/core'

import type { Schemas } from '../api/client'

type Change = Omit<Schemas['ManyChanges'], 'ids'>

/** What may be said of many groups at once. */
export function BulkBar({
  count,
  people,
  vocabulary,
  onChange,
  onClear,
}: {
  count: number
  people: readonly Schemas['Person'][]
  vocabulary: Schemas['Vocabulary']
  onChange: (change: Change) => void
  onClear: () => void
}) {
  const owners = [
    { value: 'the house', label: 'the house' },
    ...people.map((p) => ({ value: p.id, label: p.name })),
  ]
  const pick = (
    label: string,
    data: readonly (string | { value: string; label: string })[],
    keep: (value: string) => Change,
  ) => (
    <NativeSelect
      size="xs"
      aria-label={`${label} of the selected`}
      value=""
      data={[{ value: '', label }, ...data]}
      onChange={(event) => event.currentTarget.value && onChange(keep(event.currentTarget.value))}
    />
  )
  return (
    <div className="row bulk" role="group" aria-label="Change the selected">
      <b>{count} selected</b>
      {pick('decision', vocabulary.decisions, (value) => ({
        decision: value as Schemas['Thing']['decision'],
      }))}
      {pick('how often', vocabulary.frequencies, (value) => ({
        frequency: value as Schemas['Thing']['frequency'],
      }))}
      {pick('whose', owners, (value) => ({ owner: value === 'the house' ? '' : value }))}
      <Button size="compact-sm" variant="default" onClick={onClear}>
        Clear
      </Button>
    </div>
  )
}
