import { Alert, Button, TextInput } from '@mantine/core'
import { useState } from 'react'

/** A link that was just made, to be sent; it is not told again. */
export function LinkToSend({ link, children }: { link: string; children: React.ReactNode }) {
  const [copied, setCopied] = useState(false)
  return (
    <Alert variant="outline" mb="md" role="status" title="Send them this link">
      <p className="small">{children}</p>
      <TextInput
        aria-label="The link"
        readOnly
        value={link}
        onFocus={(event) => event.currentTarget.select()}
        rightSectionWidth={88}
        rightSection={
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => void navigator.clipboard.writeText(link).then(() => setCopied(true))}
          >
            {copied ? 'Copied' : 'Copy'}
          </Button>
        }
      />
    </Alert>
  )
}
