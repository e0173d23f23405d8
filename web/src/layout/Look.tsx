import { Checkbox, NativeSelect, SegmentedControl } from '@mantine/core'

export type DesignView = 'both' | 'elevation' | 'plan' | 'section' | 'walk-round'

/** How the design is shown: which view, what of its insides, doors, dimensions, trial marks. */
export interface Look {
  view: DesignView
  inside: 'hatch' | 'silhouettes' | 'bare'
  doors: 'open' | 'shut'
  dimensions: boolean
  marks: boolean
  bay: number
}

export const PLAIN: Look = {
  view: 'both',
  inside: 'hatch',
  doors: 'open',
  dimensions: true,
  marks: false,
  bay: 0,
}

const VIEWS: readonly DesignView[] = ['both', 'elevation', 'plan', 'section', 'walk-round']

/** Whether the drawing that comes with the design will do, or another has to be asked for. */
export function isPlain(look: Look): boolean {
  return look.inside === 'hatch' && look.doors === 'open' && look.dimensions && !look.marks
}

export function LookBar({
  look,
  both,
  hasDoors,
  bays,
  onChange,
}: {
  look: Look
  /** Whether there is room for two views at once. */
  both: boolean
  hasDoors: boolean
  bays: readonly string[]
  onChange: (change: Partial<Look>) => void
}) {
  const flat = look.view === 'both' || look.view === 'elevation'
  return (
    <div className="look-bar no-print" role="group" aria-label="How it is shown">
      <SegmentedControl
        size="xs"
        aria-label="View"
        value={look.view}
        onChange={(value) => onChange({ view: VIEWS.find((view) => view === value) ?? 'elevation' })}
        data={VIEWS.filter((view) => both || view !== 'both')}
      />
      {look.view === 'section' && (
        <NativeSelect
          size="xs"
          aria-label="Bay cut through"
          value={String(look.bay)}
          data={bays.map((name, n) => ({ value: String(n), label: name }))}
          onChange={(event) => onChange({ bay: Number(event.currentTarget.value) })}
        />
      )}
      {flat && (
        <>
          <NativeSelect
            size="xs"
            aria-label="What is inside"
            value={look.inside}
            data={[
              { value: 'hatch', label: 'things hatched' },
              { value: 'silhouettes', label: 'piece by piece' },
              { value: 'bare', label: 'parts alone' },
            ]}
            onChange={(event) => {
              const wanted = event.currentTarget.value
              onChange({
                inside: wanted === 'silhouettes' ? 'silhouettes' : wanted === 'bare' ? 'bare' : 'hatch',
              })
            }}
          />
          {hasDoors && (
            <NativeSelect
              size="xs"
              aria-label="Doors"
              value={look.doors}
              data={['open', 'shut']}
              onChange={(event) =>
                onChange({ doors: event.currentTarget.value === 'shut' ? 'shut' : 'open' })
              }
            />
          )}
          <Checkbox
            size="xs"
            label="sizes"
            checked={look.dimensions}
            onChange={(event) => onChange({ dimensions: event.currentTarget.checked })}
          />
          <Checkbox
            size="xs"
            label="trial marks"
            checked={look.marks}
            onChange={(event) => onChange({ marks: event.currentTarget.checked })}
          />
        </>
      )}
    </div>
  )
}
