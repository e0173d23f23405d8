import { Button, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import { useDraft } from '../shell/useDraft'

const PAUSE_MS = 200

/** Readings as people call them to each other. What is understood is echoed before it is kept. */
export function CallOutLine({
  space,
  inputRef,
  onKeep,
}: {
  space: Schemas['SpaceView']
  inputRef: React.RefObject<HTMLInputElement | null>
  onKeep: (line: string) => Promise<Schemas['HeardAndSpace']>
}) {
  const [line, setLine] = useDraft(`call-out:${space.id}`)
  const [paused] = useDebouncedValue(line.trim(), PAUSE_MS)
  const [busy, setBusy] = useState(false)
  const [error, setError] = useState('')
  const heard = useQuery({
    queryKey: ['hear', space.id, space.version, paused],
    queryFn: () =>
      body(
        api.POST('/api/spaces/{space_id}/call-out/hear', {
          params: { path: { space_id: space.id } },
          body: { line: paused },
        }),
      ),
    enabled: paused !== '',
    staleTime: 60_000,
    placeholderData: (before) => before,
  })
  const keep = async () => {
    if (!line.trim() || busy) return
    setBusy(true)
    setError('')
    try {
      const answer = await onKeep(line)
      // What was not understood stays in the line to be mended.
      setLine(answer.heard.misheard.map((clause) => clause.said).join('; '))
    } catch (problem) {
      setError(said(problem))
    } finally {
      setBusy(false)
      inputRef.current?.focus()
    }
  }
  const echo = line.trim() ? heard.data : undefined
  return (
    <form
      className="callout"
      onSubmit={(event) => {
        event.preventDefault()
        void keep()
      }}
    >
      <div className="row" style={{ flexWrap: 'nowrap', alignItems: 'flex-end' }}>
        <TextInput
          ref={inputRef}
          style={{ flex: 1 }}
          label="Call out a reading"
          placeholder={space.examples[0] ?? ''}
          value={line}
          autoComplete="off"
          aria-describedby="heard"
          onChange={(event) => setLine(event.currentTarget.value)}
        />
        <Button type="submit" disabled={!line.trim()} loading={busy}>
          Keep
        </Button>
      </div>
      <div className="echo" id="heard" aria-live="polite">
        {error && <p className="misheard">{error}</p>}
        {!echo && !error && <Examples examples={space.examples} onPick={setLine} />}
        {echo?.understood.map((clause, n) => (
          <p key={n} className="heard">
            ✓ {clause.echo}
          </p>
        ))}
        {echo?.misheard.map((clause, n) => (
          <p key={n} className="misheard">
            “{clause.said}”: {clause.problem}. {clause.mend}
          </p>
        ))}
      </div>
    </form>
  )
}

function Examples({ examples, onPick }: { examples: readonly string[]; onPick: (line: string) => void }) {
  return (
    <details>
      <summary>How it is said</summary>
      <p className="quiet">
        Several in one breath are parted by a semicolon. Units are optional: 70 3/4, 1797, 179.7 cm.
      </p>
      <ul className="examples">
        {examples.map((example) => (
          <li key={example}>
            <button type="button" className="plain" onClick={() => onPick(example)}>
              {example}
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}
