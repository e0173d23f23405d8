import { Button, Modal, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { api, body, said, type Schemas } from '../api/client'
import { inUnits, type Units } from '../shell/units'
import { useDraft } from '../shell/useDraft'
import { useMeasureVocabulary } from '../api/queries'
import type { SurveyChange } from './useSurveyChange'

const PAUSE_MS = 200

/** Readings as people call them to each other. What is understood is echoed before it is kept. */
export function CallOutLine({
  space,
  section,
  inputRef,
  onKeep,
}: {
  space: Schemas['SpaceView']
  /** Where the speaker stands; a section said in the line goes before it. */
  section: string
  inputRef: React.RefObject<HTMLInputElement | null>
  onKeep: SurveyChange['callOut']
}) {
  const [line, setLine] = useDraft(`call-out:${space.id}`)
  const [paused] = useDebouncedValue(line.trim(), PAUSE_MS)
  const [busy, setBusy] = useState(false)
  const [error, setError] = useState('')
  const heard = useQuery({
    queryKey: ['hear', space.id, space.version, section, paused],
    queryFn: () =>
      body(
        api.POST('/api/spaces/{space_id}/call-out/hear', {
          params: { path: { space_id: space.id } },
          body: { line: paused, section },
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
      const answer = await onKeep(line, section)
      // What was not understood stays in the line to be mended; what waits for a connection is listed above.
      setLine(answer ? answer.heard.misheard.map((clause) => clause.said).join('; ') : '')
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
        {!echo && !error && <Examples examples={space.examples} units={space.units} onPick={setLine} />}
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

/** Everything that may be said, as the core reads it. */
function Grammar({ units }: { units: Units }) {
  const [opened, setOpened] = useState(false)
  const vocabulary = useMeasureVocabulary()
  return (
    <>
      <Button size="compact-sm" variant="default" onClick={() => setOpened(true)}>
        All that may be said…
      </Button>
      <Modal opened={opened} onClose={() => setOpened(false)} title="The call-out line" size="xl">
        <pre className="grammar" tabIndex={0}>
          {vocabulary.data && inUnits(units, vocabulary.data.grammar, vocabulary.data.grammar_in_inches)}
        </pre>
      </Modal>
    </>
  )
}

function Examples({
  examples,
  units,
  onPick,
}: {
  examples: readonly string[]
  units: Units
  onPick: (line: string) => void
}) {
  return (
    <details>
      <summary>How it is said</summary>
      <p className="quiet">
        Several in one breath are parted by a semicolon. Units are optional:{' '}
        {inUnits(units, '1797, 179.7 cm', `70 3/4, 5' 10 3/4"`)}.
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
      <Grammar units={units} />
    </details>
  )
}
