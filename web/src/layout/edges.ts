/** How a compartment in a drawer is changed by its dividers: the key, the divider, which way it goes, and what that does. */
export const EDGES = [
  ['↑', 'front', 1, 'Front divider away'],
  ['↓', 'front', -1, 'Front divider nearer'],
  ['→', 'right', 1, 'Right divider away'],
  ['←', 'right', -1, 'Right divider nearer'],
] as const
