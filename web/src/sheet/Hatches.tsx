/** Kinds of storage are told apart by hatch and word; the tint only helps. Drawn in millimetres of the drawing. */
export const STORAGES = [
  'hanging',
  'folded',
  'drawers',
  'shoes',
  'containers',
  'hooks',
  'floor',
  'overhead',
] as const

const STROKES: Record<(typeof STORAGES)[number], React.ReactNode> = {
  hanging: <path d="M12 0V48M36 0V48" />,
  folded: <path d="M0 10H48M0 34H48" />,
  drawers: (
    <>
      <circle cx="12" cy="12" r="3" />
      <circle cx="36" cy="36" r="3" />
    </>
  ),
  shoes: <path d="M-6 30L30 -6M18 54L54 18" />,
  containers: <path d="M8 8H30V30H8Z" />,
  hooks: (
    <>
      <circle cx="14" cy="14" r="7" />
      <circle cx="38" cy="38" r="7" />
    </>
  ),
  floor: <path d="M0 36H48M12 36V48M36 36V48" />,
  overhead: <path d="M0 12H48M12 0V12M36 0V12" />,
}

/** Pattern definitions of one drawing; `prefix` keeps their ids apart from those of other drawings on the page. */
export function Hatches({ prefix, scale = 1 }: { prefix: string; scale?: number }) {
  const size = 48
  return (
    <defs>
      {STORAGES.map((name) => (
        <pattern
          key={name}
          id={`${prefix}-${name}`}
          width={size}
          height={size}
          patternUnits="userSpaceOnUse"
          patternTransform={`scale(${scale})`}
        >
          <g stroke={`var(--${name})`} fill="none" strokeWidth="2.6" opacity="0.62">
            {STROKES[name]}
          </g>
        </pattern>
      ))}
      <pattern
        id={`${prefix}-cut`}
        width="26"
        height="26"
        patternUnits="userSpaceOnUse"
        patternTransform={`scale(${scale})`}
      >
        <path d="M-2 28L28 -2" stroke="var(--ink)" strokeWidth="2" opacity="0.75" fill="none" />
      </pattern>
    </defs>
  )
}

/** The same hatch as a small sample beside a word. */
export function Swatch({ storage }: { storage: string }) {
  const name = STORAGES.find((s) => s === storage)
  if (!name) return null
  const id = `swatch-${name}`
  return (
    <svg className="swatch" viewBox="0 0 22 13" aria-hidden="true">
      <defs>
        <pattern id={id} width="48" height="48" patternUnits="userSpaceOnUse" patternTransform="scale(0.2)">
          <g stroke={`var(--${name})`} fill="none" strokeWidth="5">
            {STROKES[name]}
          </g>
        </pattern>
      </defs>
      <rect width="22" height="13" fill={`url(#${id})`} />
    </svg>
  )
}
