import { Button, Checkbox, Loader, NativeSelect } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import {
  AmbientLight,
  Box3,
  BoxGeometry,
  Color,
  DirectionalLight,
  Group,
  Mesh,
  MeshBasicMaterial,
  MeshStandardMaterial,
  PerspectiveCamera,
  Quaternion,
  Raycaster,
  Scene,
  Spherical,
  Vector2,
  Vector3,
  WebGLRenderer,
  type Object3D,
} from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js'

import type { Schemas } from '../api/client'

const STEP_RAD = Math.PI / 24
const ZOOM = 1.12

export interface WalkRoundProps {
  url: string
  label: string
  /** Everybody of the house: how high their eyes are and between which heights their hands reach, mm. */
  eyes: readonly Schemas['EyesView'][]
  /** Ids of what slides out. */
  drawers: ReadonlySet<string>
  /** Whether there are fronts to be shut. */
  fronts: boolean
  /** Ids of parts with which something is wrong: they stand in the colour of that. */
  wrong?: ReadonlySet<string>
}

/** The design in three dimensions, from the same parts as the sheet: drag, or the arrow keys, + and −; from the eyes of
 * whoever stands or sits before it.
 */
export default function WalkRound({ url, label, eyes, drawers, fronts, wrong }: WalkRoundProps) {
  const holder = useRef<HTMLDivElement>(null)
  const stage = useRef<Stage | null>(null)
  const [state, setState] = useState<'loading' | 'shown' | 'failed'>('loading')
  const [looking, setLooking] = useState('')
  const [shut, setShut] = useState(false)
  const whose = eyes.find((one) => one.name === looking) ?? null
  useEffect(() => {
    const box = holder.current
    if (!box) return
    const made = standUp(box, drawers)
    let gone = false
    if (!made) {
      setState('failed')
      return
    }
    stage.current = made
    new GLTFLoader().loadAsync(url).then(
      ({ scene }) => {
        if (gone) return
        made.show(scene)
        setState('shown')
      },
      () => {
        if (!gone) setState('failed')
      },
    )
    return () => {
      gone = true
      stage.current = null
      made.leave()
    }
  }, [url, drawers])
  useEffect(() => {
    if (state === 'shown') stage.current?.lookAs(whose)
  }, [whose, state])
  useEffect(() => {
    if (state === 'shown') stage.current?.shut(shut)
  }, [shut, state])
  useEffect(() => {
    if (state === 'shown') stage.current?.mark(wrong ?? NONE)
  }, [wrong, state])
  return (
    <div className="walk-round">
      <div
        ref={holder}
        className="walk-canvas"
        role="application"
        tabIndex={0}
        data-wrong={wrong?.size ?? 0}
        aria-label={`${label}, in three dimensions. Arrow keys walk round, plus and minus go nearer, o opens and shuts drawers.`}
        data-state={state}
      />
      {state === 'loading' && <Loader className="walk-wait" aria-label="Building the view" />}
      {state === 'failed' && (
        <p className="walk-wait" role="alert">
          The view could not be built here. Elevation and plan show the same parts.
        </p>
      )}
      {state === 'shown' && (
        <div className="walk-tools no-print" role="group" aria-label="How one looks">
          <NativeSelect
            size="xs"
            aria-label="Whose eyes"
            value={looking}
            onChange={(event) => setLooking(event.currentTarget.value)}
            data={[
              { value: '', label: 'all of it' },
              ...eyes.map((one) => ({ value: one.name, label: `as ${one.name} sees it` })),
            ]}
          />
          {fronts && (
            <Checkbox
              size="xs"
              label="fronts shut"
              checked={shut}
              onChange={(event) => setShut(event.currentTarget.checked)}
            />
          )}
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => {
              const link = document.createElement('a')
              link.href = stage.current?.picture() ?? ''
              link.download = `${label}.png`
              link.click()
            }}
          >
            Save picture
          </Button>
        </div>
      )}
      <p className="walk-keys no-print">
        {whose ? (
          <>
            Shaded: what {whose.name} reaches, {whose.reach}.
          </>
        ) : (
          <>
            <span className="by-key">
              <kbd>←</kbd> <kbd>→</kbd> <kbd>↑</kbd> <kbd>↓</kbd> walk round, <kbd>+</kbd> <kbd>−</kbd>{' '}
              nearer, <kbd>o</kbd> or a click opens drawers
            </span>
            <span className="by-finger">One finger walks round, two go nearer, a tap opens a drawer.</span>
          </>
        )}
      </p>
    </div>
  )
}

interface Stage {
  show: (design: Object3D) => void
  /** From somebody's eyes, with what they reach shaded; null for all of it from the front. */
  lookAs: (whose: Schemas['EyesView'] | null) => void
  shut: (fronts: boolean) => void
  /** Parts in the colour of what is wrong with them; the others as they are. */
  mark: (wrong: ReadonlySet<string>) => void
  picture: () => string
  leave: () => void
}

const NONE: ReadonlySet<string> = new Set()

/** Pixels of the picture to one of the screen: while it moves, and when it has not moved for so many milliseconds. */
const COARSE = 0.6
const FINE = 2
const REST_MS = 140
/** Metres that a drawer slides out, and that one stands back. */
const PULLED = 0.32
const STEP_BACK = 1.5
/** Names of what is only seen while the fronts are shut begin so. */
const SHUT = 'shut'
/** Of the room what stands before the design, and how little of it one sees from outside. */
const BEFORE = /^(side|door leaf|car)\b/
const THROUGH = 0.22
/** Names of what is of the room and not of the design. */
const ROOM = /^(wall|side|floor|ceiling|door leaf|car)\b/

/** The name that a node was given; the reader puts `_` for a space. */
function named(node: Object3D): string {
  const given: unknown = node.userData.name
  return (typeof given === 'string' ? given : node.name).replaceAll('_', ' ')
}

/** The heights that somebody reaches, shaded round the design: lightly what they reach at all, more what is easy. */
function reachBand(parts: Box3, whose: Schemas['EyesView'], colour: string): Group {
  const group = new Group()
  const middle = parts.getCenter(new Vector3())
  const size = parts.getSize(new Vector3())
  for (const [low, high, grow] of [
    [whose.low, whose.high, 0.05],
    [whose.easy_low, whose.easy_high, 0.06],
  ] as const) {
    const [from, to] = [low / 1000, Math.min(high / 1000, parts.max.y + 0.05)]
    if (to <= from) continue
    const shade = new Mesh(
      new BoxGeometry(size.x + grow, to - from, size.z + grow),
      new MeshBasicMaterial({
        color: colour || '#2e6e68',
        transparent: true,
        opacity: 0.1,
        depthWrite: false,
      }),
    )
    shade.position.set(middle.x, (from + to) / 2, middle.z)
    group.add(shade)
  }
  return group
}

/** The way out of a room between its walls: where one stands to see all of them from the front. */
function openSide(design: Object3D): Vector3 {
  const fronts = new Map<string, Vector3>()
  design.traverse((node) => {
    if (!named(node).startsWith('wall')) return
    const front = new Vector3(0, 0, 1).applyQuaternion(node.getWorldQuaternion(new Quaternion()))
    fronts.set(`${front.x.toFixed(1)} ${front.z.toFixed(1)}`, front)
  })
  const sum = [...fronts.values()].reduce((all, one) => all.add(one), new Vector3())
  return sum.length() > 0.1 ? sum.normalize() : new Vector3(0, 0, 1)
}

/** A renderer in a box, drawing only when something moved; null where there is no WebGL. */
function standUp(box: HTMLDivElement, drawers: ReadonlySet<string>): Stage | null {
  let renderer: WebGLRenderer
  try {
    renderer = new WebGLRenderer({ antialias: false })
  } catch {
    return null
  }
  const scene = new Scene()
  scene.background = new Color(getComputedStyle(box).getPropertyValue('--paper').trim() || '#fffdf8')
  // A near plane no nearer than one steps keeps faces that almost touch from flickering.
  const camera = new PerspectiveCamera(42, 1, 0.15, 60)
  scene.add(new AmbientLight(0xffffff, 1.6))
  const sun = new DirectionalLight(0xffffff, 1.9)
  sun.position.set(2.5, 6, 5)
  scene.add(sun)
  const controls = new OrbitControls(camera, renderer.domElement)
  const render = (ratio: number) => {
    if (renderer.getPixelRatio() !== ratio) renderer.setPixelRatio(ratio)
    renderer.render(scene, camera)
  }
  // Coarse while it moves, so that it turns smoothly without a graphics card too; at rest twice as fine as the screen,
  // which smooths the edges.
  const fine = () => render(FINE)
  let rest = 0
  const draw = () => {
    render(COARSE)
    clearTimeout(rest)
    rest = window.setTimeout(fine, REST_MS)
  }
  controls.addEventListener('change', draw)
  const fit = () => {
    const { clientWidth: w, clientHeight: h } = box
    renderer.setSize(w, h)
    camera.aspect = w / Math.max(h, 1)
    camera.updateProjectionMatrix()
    draw()
  }
  const turn = (around: number, up: number, nearer: number) => {
    const away = new Spherical().setFromVector3(camera.position.clone().sub(controls.target))
    away.theta += around
    away.phi = Math.min(Math.PI * 0.52, Math.max(0.15, away.phi + up))
    away.radius = Math.max(0.4, away.radius * nearer)
    camera.position.copy(new Vector3().setFromSpherical(away).add(controls.target))
    controls.update()
    draw()
  }
  let whole: Object3D | null = null
  let band: Group | null = null
  const out = new Set<string>()
  const drawerOf = (name: string) => [...drawers].find((id) => name.split(' ').includes(id))
  /** Slide drawers out, or back in where one of them is out. */
  const pull = (some: ReadonlySet<string>) => {
    const back = [...some].some((id) => out.has(id))
    for (const id of some) {
      if (back === out.has(id)) {
        whole?.traverse((node) => {
          if (drawerOf(named(node)) === id) node.translateZ(back ? -PULLED : PULLED)
        })
        if (back) out.delete(id)
        else out.add(id)
      }
    }
    draw()
  }
  let pressed: [number, number] | null = null
  const press = (event: PointerEvent) => (pressed = [event.clientX, event.clientY])
  const click = (event: PointerEvent) => {
    if (!whole || !pressed || Math.hypot(event.clientX - pressed[0], event.clientY - pressed[1]) > 4) return
    const at = renderer.domElement.getBoundingClientRect()
    const ray = new Raycaster()
    ray.setFromCamera(
      new Vector2(
        ((event.clientX - at.left) / at.width) * 2 - 1,
        1 - ((event.clientY - at.top) / at.height) * 2,
      ),
      camera,
    )
    const hit = ray.intersectObject(whole).find((one) => one.object.visible)
    const id = hit && drawerOf(named(hit.object))
    if (id) pull(new Set([id]))
  }
  renderer.domElement.addEventListener('pointerdown', press)
  renderer.domElement.addEventListener('pointerup', click)
  /** Materials of what stands before the design: its own, since the file shares them. */
  const before = new Map<Mesh, MeshStandardMaterial>()
  /** Materials of what is marked as wrong: its own. */
  const plain = new Map<Mesh, MeshStandardMaterial>()
  /** What stands before the design: one looks through it from outside, and sees it as it is from within. */
  const lookThrough = (opacity: number) => {
    whole?.traverse((node) => {
      const name = named(node)
      if (!(node instanceof Mesh) || !BEFORE.test(name)) return
      // Whoever stands between the open leaves of a door still sees the room.
      if (opacity === 1 && name.startsWith('door leaf')) return
      const own = before.get(node) ?? (node.material as MeshStandardMaterial).clone()
      before.set(node, own)
      own.transparent = opacity < 1
      own.opacity = opacity
      own.depthWrite = opacity === 1
      own.needsUpdate = true
      node.material = own
    })
  }
  const fromTheFront = () => {
    if (!whole) return
    lookThrough(THROUGH)
    const bounds = new Box3()
    whole.traverse((node) => {
      if (node instanceof Mesh && !BEFORE.test(named(node))) bounds.expandByObject(node)
    })
    const middle = bounds.getCenter(new Vector3())
    const size = bounds.getSize(new Vector3())
    const front = openSide(whole)
    // Across the open side one sees the width of the walls, along it their depth.
    const wide = Math.abs(front.z) * size.x + Math.abs(front.x) * size.z
    const deep = Math.abs(front.z) * size.z + Math.abs(front.x) * size.x
    const straight = Math.max(Math.abs(front.x), Math.abs(front.z)) > 0.9
    const away = Math.max(wide, size.y * 1.3) * 1.05 + deep * (straight ? 1 : 0.1)
    const aside = straight ? 0.35 : 0
    controls.target.copy(middle)
    camera.position.copy(middle).addScaledVector(front, deep / 2 + away * 0.8)
    camera.position.addScaledVector(new Vector3(front.z, 0, -front.x), away * aside)
    camera.position.y += size.y * 0.25
  }
  const moves: Record<string, () => void> = {
    ArrowLeft: () => turn(-STEP_RAD, 0, 1),
    ArrowRight: () => turn(STEP_RAD, 0, 1),
    ArrowUp: () => turn(0, -STEP_RAD, 1),
    ArrowDown: () => turn(0, STEP_RAD, 1),
    '+': () => turn(0, 0, 1 / ZOOM),
    '=': () => turn(0, 0, 1 / ZOOM),
    '-': () => turn(0, 0, ZOOM),
    o: () => pull(drawers),
  }
  const key = (event: KeyboardEvent) => {
    const move = moves[event.key]
    if (!move) return
    event.preventDefault()
    event.stopPropagation()
    move()
  }
  box.append(renderer.domElement)
  box.addEventListener('keydown', key)
  const watcher = new ResizeObserver(fit)
  watcher.observe(box)
  return {
    show: (design) => {
      scene.add(design)
      whole = design
      design.traverse((node) => {
        if (named(node).startsWith(SHUT)) node.visible = false
      })
      fromTheFront()
      controls.update()
      fit()
    },
    lookAs: (whose) => {
      if (!whole) return
      band?.traverse((node) => {
        if (!(node instanceof Mesh)) return
        node.geometry.dispose()
        ;(node.material as MeshBasicMaterial).dispose()
      })
      if (band) scene.remove(band)
      band = null
      if (whose) {
        lookThrough(1)
        const front = openSide(whole)
        const parts = new Box3()
        whole.traverse((node) => {
          if (node instanceof Mesh && !ROOM.test(named(node))) parts.expandByObject(node)
        })
        const middle = parts.getCenter(new Vector3())
        const size = parts.getSize(new Vector3())
        const deep = Math.abs(front.z) * size.z + Math.abs(front.x) * size.x
        band = reachBand(parts, whose, getComputedStyle(box).getPropertyValue('--accent').trim())
        scene.add(band)
        // A step back from the fronts, where the door of a closet is: the eyes at their height, level.
        camera.position.copy(middle).addScaledVector(front, deep / 2 + STEP_BACK)
        camera.position.y = whose.eye / 1000
        controls.target.copy(middle)
        controls.target.y = Math.min(whose.eye / 1000, middle.y + size.y / 4)
      } else fromTheFront()
      camera.fov = whose ? 68 : 42
      controls.update()
      fit()
    },
    shut: (fronts) => {
      whole?.traverse((node) => {
        if (named(node).startsWith(SHUT)) node.visible = fronts
      })
      draw()
    },
    mark: (wrong) => {
      const colour = new Color(getComputedStyle(box).getPropertyValue('--stop').trim() || '#a3262a')
      whole?.traverse((node) => {
        if (!(node instanceof Mesh)) return
        const own = plain.get(node) ?? (node.material as MeshStandardMaterial)
        if (
          named(node)
            .split(' ')
            .some((word) => wrong.has(word))
        ) {
          plain.set(node, own)
          node.material = new MeshStandardMaterial({ color: colour, roughness: 0.9 })
        } else node.material = own
      })
      draw()
    },
    picture: () => {
      fine()
      return renderer.domElement.toDataURL('image/png')
    },
    leave: () => {
      clearTimeout(rest)
      watcher.disconnect()
      box.removeEventListener('keydown', key)
      controls.dispose()
      renderer.dispose()
      renderer.domElement.remove()
    },
  }
}
