import { useQuery } from '@tanstack/react-query'

import { api, body, type Schemas } from '../api/client'

/** The plan of a design: as it comes with it, or with the ways of whatever slides or swings out. */
export function usePlan(design: Schemas['DesignView'], ways: boolean): Schemas['Drawing'] {
  const query = useQuery({
    queryKey: ['design', design.id, 'plan', design.version],
    queryFn: () =>
      body(
        api.GET('/api/designs/{design_id}/plan', {
          params: { path: { design_id: design.id }, query: { ways: true } },
        }),
      ),
    enabled: ways,
    placeholderData: (before) => before,
  })
  return ways ? (query.data ?? design.plan) : design.plan
}
