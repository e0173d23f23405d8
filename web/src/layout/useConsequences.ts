import { useQuery } from '@tanstack/react-query'

import { api, body, type Schemas } from '../api/client'
import type { Command } from './useDesignEdits'

/** What each of some edits would bring, told before any of them is made. */
export function useConsequences(design: Schemas['DesignView'], commands: readonly Command[]) {
  return useQuery({
    queryKey: ['design', design.id, 'tries', design.version, commands],
    queryFn: () =>
      body(
        api.POST('/api/designs/{design_id}/tries', {
          params: { path: { design_id: design.id } },
          body: { commands: [...commands] },
        }),
      ),
    enabled: commands.length > 0,
    staleTime: Infinity,
  })
}

/** One consequence in a sentence or two. */
export function consequence(told: Schemas['ConsequenceView']): string {
  if (told.refused) return told.refused
  const [first, ...others] = told.brings
  const more = others.length ? ` And ${others.length} more.` : ''
  const worse = first ? `${first}${more}` : ''
  const better = told.mends[0] ? `No longer: ${told.mends[0]}` : ''
  const cost = told.costs ? `${told.costs}.` : ''
  return [worse, better, cost].filter(Boolean).join(' ') || 'Nothing is wrong with that.'
}
