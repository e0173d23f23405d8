import { notifications } from '@mantine/notifications'
import { createContext, useCallback, useContext, useMemo, useRef, useState } from 'react'

import { said } from '../api/client'

/** One act that can be taken back and done again. */
export interface Step {
  label: string
  undo: () => Promise<unknown>
  redo: () => Promise<unknown>
}

interface Undo {
  did: (step: Step) => void
  undo: () => void
  redo: () => void
  canUndo: boolean
  canRedo: boolean
}

const Context = createContext<Undo | null>(null)

/** Undo and redo of what was done on this page since it was opened. */
export function UndoProvider({ children }: { children: React.ReactNode }) {
  const done = useRef<Step[]>([])
  const undone = useRef<Step[]>([])
  const [sizes, setSizes] = useState({ done: 0, undone: 0 })
  const settle = useCallback(() => setSizes({ done: done.current.length, undone: undone.current.length }), [])
  const did = useCallback(
    (step: Step) => {
      done.current.push(step)
      undone.current = []
      settle()
    },
    [settle],
  )
  // One step after the other, in the order they were asked for; a step that fails stays where it was.
  const queue = useRef<Promise<unknown>>(Promise.resolve())
  const shift = useCallback(
    (from: React.RefObject<Step[]>, to: React.RefObject<Step[]>, way: 'undo' | 'redo') => {
      queue.current = queue.current.then(async () => {
        const step = from.current.at(-1)
        if (!step) return
        try {
          await step[way]()
          from.current.pop()
          to.current.push(step)
          settle()
          notifications.show({ message: `${way === 'undo' ? 'Undone' : 'Done again'}: ${step.label}` })
        } catch (error) {
          notifications.show({
            color: 'red',
            message: `Not ${way === 'undo' ? 'undone' : 'done'}: ${said(error)}`,
          })
        }
      })
    },
    [settle],
  )
  const value = useMemo<Undo>(
    () => ({
      did,
      undo: () => shift(done, undone, 'undo'),
      redo: () => shift(undone, done, 'redo'),
      canUndo: sizes.done > 0,
      canRedo: sizes.undone > 0,
    }),
    [did, shift, sizes],
  )
  return <Context.Provider value={value}>{children}</Context.Provider>
}

/** Undo of this page; throws outside `UndoProvider`. */
export function useUndo(): Undo {
  const value = useContext(Context)
  if (!value) throw new Error('useUndo needs an UndoProvider above it')
  return value
}
