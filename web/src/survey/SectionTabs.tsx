import { SegmentedControl, NativeSelect } from '@mantine/core'

import type { Schemas } from '../api/client'

const MOST_TABS = 4

/** Which wall, level or drawer hangs on the sheet; a space of one section needs none of it. */
export function SectionTabs({
  space,
  section,
  onChange,
}: {
  space: Schemas['SpaceView']
  section: string
  onChange: (id: string) => void
}) {
  if (space.sections.length < 2) return null
  const data = space.sections.map(({ id, label }) => ({ value: id, label }))
  return (
    <div className="section-tabs">
      {data.length <= MOST_TABS ? (
        <SegmentedControl size="xs" aria-label="Section" value={section} data={data} onChange={onChange} />
      ) : (
        <NativeSelect
          size="xs"
          aria-label="Section"
          value={section}
          data={data}
          onChange={(event) => onChange(event.currentTarget.value)}
        />
      )}
    </div>
  )
}
