import type { Step } from './useInstall'

/** How long a step takes, with whom, what it waits for and which tools, in a line. */
export function lasting(step: Step): string {
  const said = [`about ${String(Math.max(1, Math.round(step.minutes)))} min`]
  if (step.hands > 1) said.push(`${String(step.hands)} people`)
  if (step.wait > 0) said.push(`then ${String(Math.round(step.wait / 60))} h to dry`)
  if (step.tools.length > 0) said.push(step.tools.join(', '))
  return said.join('; ')
}
