import { ActionIcon, Button, FileButton } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { useEffect, useMemo } from 'react'

import type { Step } from './useInstall'
import type { Photos } from './usePhotos'

/** Photos of a step: what is behind the board, before it is covered. */
export function StepPhotos({ step, photos }: { step: Step; photos: Photos }) {
  const here = photos.waiting.filter((one) => one.step === step.id)
  return (
    <section className="step-photos" aria-label="Photos of this step">
      <FileButton
        onChange={(file) => file && photos.take(step.id, file)}
        accept="image/*"
        inputProps={{ 'aria-label': 'Choose a photo of this step', capture: 'environment' }}
      >
        {(props) => (
          <Button {...props} size="md" variant="default">
            Photo
          </Button>
        )}
      </FileButton>
      {photos.refused && (
        <p className="misheard" role="alert">
          {photos.refused}
        </p>
      )}
      {(step.photos.length > 0 || here.length > 0) && (
        <ul>
          {step.photos.map((photo, n) => (
            <li key={photo.id}>
              <a href={photo.url} target="_blank" rel="noreferrer">
                <img src={photo.url} alt={`Photo ${String(n + 1)} of step ${String(step.number)}`} />
              </a>
              <ActionIcon
                size={28}
                variant="default"
                aria-label={`Remove photo ${String(n + 1)}`}
                onClick={() => photos.remove(photo.id)}
              >
                <IconX size={14} />
              </ActionIcon>
            </li>
          ))}
          {here.map((one) => (
            <li key={one.key}>
              <Kept picture={one.picture} />
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}

/** A photo that waits on this device. */
function Kept({ picture }: { picture: Blob }) {
  const url = useMemo(() => URL.createObjectURL(picture), [picture])
  useEffect(() => () => URL.revokeObjectURL(url), [url])
  return <img src={url} alt="Photo that waits on this device" className="waits" />
}
