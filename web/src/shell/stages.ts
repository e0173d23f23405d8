/** The run of work. A digit keeps its stage for good, so stages to come do not move the others. */
export const STAGES = [
  { digit: '1', id: 'house', name: 'Brief' },
  { digit: '2', id: 'survey', name: 'Measure' },
  { digit: '3', id: 'inventory', name: 'Sort' },
  { digit: '4', id: 'layout', name: 'Design' },
  { digit: '5', id: 'checks', name: 'Check' },
  { digit: '6', id: 'materials', name: 'Buy' },
  { digit: '7', id: 'install', name: 'Install' },
  { digit: '8', id: 'upkeep', name: 'Keep' },
] as const

export type StageId = (typeof STAGES)[number]['id']

export function isStage(text: string | undefined): text is StageId {
  return STAGES.some((stage) => stage.id === text)
}
