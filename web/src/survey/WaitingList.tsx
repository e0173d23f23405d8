import { Button } from '@mantine/core'

import type { Waiting } from './useWaiting'
import type { Message } from './waiting'

/** What waits on this device for a connection, and what the server refused. */
export function WaitingList({ waiting }: { waiting: Waiting }) {
  const { messages, refused } = waiting
  const pending = messages.filter((one) => !refused.some((bad) => bad.key === one.key))
  return (
    <div aria-live="polite">
      {pending.length > 0 && (
        <p className="waiting" role="status">
          No connection: {pending.length === 1 ? '1 reading waits' : `${pending.length} readings wait`} on
          this device ({pending.map(words).join('; ')}). They go up when it returns.
        </p>
      )}
      {refused.map((bad) => {
        const one = messages.find((message) => message.key === bad.key)
        return one ? (
          <p key={bad.key} className="misheard">
            {words(one)}: {bad.problem} {bad.mend}{' '}
            <Button size="compact-xs" variant="default" onClick={() => waiting.drop(bad.key)}>
              Give it up
            </Button>
          </p>
        ) : null
      })}
    </div>
  )
}

function words(message: Message): string {
  return message.slot ? `${message.slot.what} ${message.text}` : message.line
}
