import { SegmentedControl } from '@mantine/core'

export type View = 'both' | 'elevation' | 'plan'

/** Up to this width there is room for one view at a time. */
export const PHONE = '(width <= 760px)'

/** Which views hang on the sheet; `v` steps through them. */
export function ViewSwitch({
  view,
  both = true,
  onChange,
}: {
  view: View
  /** Whether there is room for two at once. */
  both?: boolean
  onChange: (view: View) => void
}) {
  return (
    <div className="view-switch">
      <SegmentedControl
        size="xs"
        aria-label="View"
        value={view}
        onChange={(value) => onChange(value === 'plan' || value === 'both' ? value : 'elevation')}
        data={[...(both ? ['both'] : []), 'elevation', 'plan']}
      />
    </div>
  )
}
