import { TextInput, type TextInputProps } from '@mantine/core'
import { useState } from 'react'

export interface FieldProps {
  label: string
  text: string
  /** Whole numbers only; anything else is put back. */
  numeric?: boolean
  id?: string
  variant?: TextInputProps['variant']
  placeholder?: string
  onKeep: (text: string) => void
}

/** A text edited where it stands: kept on Enter or when left; Escape puts the old one back. */
export function Field({ label, text, numeric, onKeep, variant = 'unstyled', ...rest }: FieldProps) {
  const [draft, setDraft] = useState<string | null>(null)
  const keep = () => {
    const wanted = draft?.trim()
    setDraft(null)
    if (wanted === undefined || wanted === text) return
    if (numeric && !/^\d+$/.test(wanted)) return
    onKeep(wanted)
  }
  return (
    <TextInput
      variant={variant}
      size="sm"
      aria-label={label}
      value={draft ?? text}
      {...rest}
      {...(numeric ? { inputMode: 'numeric' as const, styles: { input: { textAlign: 'right' } } } : {})}
      onChange={(event) => setDraft(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur()
        if (event.key === 'Escape') setDraft(null)
      }}
    />
  )
}
