import type { Schemas } from '../api/client'

type Kind = Schemas['NewSpace']['kind']

/** Each kind of space as one would sketch it: walls thick, openings and slopes thin. */
const PICTURES: Record<Kind, { walls: string; thin?: string }> = {
  'reach-in closet': { walls: 'M8 38V8H56V38M8 38H16M48 38H56', thin: 'M12 16H52M16 38A16 16 0 0 0 32 42' },
  recess: { walls: 'M2 40H10V10H54V40H62', thin: 'M10 22H54M10 32H54' },
  wall: { walls: 'M4 10H60', thin: 'M10 14V38H54V14M26 14V38M40 14V38' },
  'walk-in L': { walls: 'M8 42V8H58', thin: 'M18 42V18H58M8 18H18M18 8V18' },
  'walk-in U': { walls: 'M8 42V8H56V42', thin: 'M18 42V18H46V42' },
  'under a stair': { walls: 'M6 42H58V8', thin: 'M6 42H14V35H23V28H32V22H41V15H50V8H58' },
  'under a roof': { walls: 'M6 42H58V8H40L6 30Z', thin: 'M22 42V24M40 42V14' },
  'utility cupboard': { walls: 'M14 6H50V44H14Z', thin: 'M20 12H36V28H20ZM40 12V44M24 36A3 3 0 1 0 24 36.1' },
  'fixed shelves': { walls: 'M12 6V44M52 6V44', thin: 'M12 12H52M12 22H52M12 32H52M12 42H52' },
  drawer: { walls: 'M8 14H56V40H8Z', thin: 'M8 22H56M28 18H36M24 22V40M42 22V40' },
  'chest of drawers': { walls: 'M12 6H52V44H12Z', thin: 'M12 18H52M12 31H52M29 12H35M29 25H35M29 38H35' },
  'garage bay': {
    walls: 'M6 44V14L32 4L58 14V44',
    thin: 'M14 44V24H50V44M20 38A3 3 0 1 0 20 38.1M44 38A3 3 0 1 0 44 38.1M16 34H48',
  },
  shed: { walls: 'M10 44V18L32 6L54 18V44Z', thin: 'M26 44V26H38V44M14 24H22' },
}

export function KindPicture({ kind }: { kind: Kind }) {
  const picture = PICTURES[kind]
  return (
    <svg className="kind-picture" viewBox="0 0 64 48" aria-hidden="true">
      <path d={picture.walls} strokeWidth={2.6} />
      {picture.thin && <path d={picture.thin} strokeWidth={1.2} />}
    </svg>
  )
}
