import { Alert, Button, Loader } from '@mantine/core'
import type { UseQueryResult } from '@tanstack/react-query'

import { said } from '../api/client'

/** What was asked for once it is there; until then that it is awaited, or why it is not, with another try. */
export function Fetched<T>({
  query,
  waiting,
  children,
}: {
  query: UseQueryResult<T>
  waiting: string
  children: (data: T) => React.ReactNode
}) {
  if (query.data !== undefined) return children(query.data)
  if (!query.isError) return <Loader aria-label={waiting} m="md" />
  return (
    <Alert color="red" variant="outline" role="alert" m="md">
      {said(query.error)}{' '}
      <Button size="compact-sm" variant="default" onClick={() => void query.refetch()}>
        Try again
      </Button>
    </Alert>
  )
}
