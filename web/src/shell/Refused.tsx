import { Alert } from '@mantine/core'

import { said } from '../api/client'

/** Why something was refused, and the mend; nothing where all is well. */
export function Refused({ error }: { error: Error | null | undefined }) {
  if (!error) return null
  return (
    <Alert color="red" variant="outline" role="alert">
      {said(error)}
    </Alert>
  )
}
