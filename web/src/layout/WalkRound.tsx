import { Loader } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import {
  AmbientLight,
  Box3,
  Color,
  DirectionalLight,
  PerspectiveCamera,
  Quaternion,
  Scene,
  Spherical,
  Vector3,
  WebGLRenderer,
  type Object3D,
} from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js'

const STEP_RAD = Math.PI / 24
const ZOOM = 1.12

/** The design in three dimensions, from the same parts as the sheet: drag, or the arrow keys, + and −. */
export default function WalkRound({ url, label }: { url: string; label: string }) {
  const holder = useRef<HTMLDivElement>(null)
  const [state, setState] = useState<'loading' | 'shown' | 'failed'>('loading')
  useEffect(() => {
    const box = holder.current
    if (!box) return
    const stage = standUp(box)
    let gone = false
    if (!stage) {
      setState('failed')
      return
    }
    new GLTFLoader().loadAsync(url).then(
      ({ scene }) => {
        if (gone) return
        stage.show(scene)
        setState('shown')
      },
      () => {
        if (!gone) setState('failed')
      },
    )
    return () => {
      gone = true
      stage.leave()
    }
  }, [url])
  return (
    <div className="walk-round">
      <div
        ref={holder}
        className="walk-canvas"
        role="application"
        tabIndex={0}
        aria-label={`${label}, in three dimensions. Arrow keys walk round, plus and minus go nearer.`}
        data-state={state}
      />
      {state === 'loading' && <Loader className="walk-wait" aria-label="Building the view" />}
      {state === 'failed' && (
        <p className="walk-wait" role="alert">
          The view could not be built here. Elevation and plan show the same parts.
        </p>
      )}
      <p className="walk-keys no-print">
        <kbd>←</kbd> <kbd>→</kbd> <kbd>↑</kbd> <kbd>↓</kbd> walk round, <kbd>+</kbd> <kbd>−</kbd> nearer and
        further
      </p>
    </div>
  )
}

interface Stage {
  show: (design: Object3D) => void
  leave: () => void
}

/** The way out of a room between its walls: where one stands to see all of them from the front. */
function openSide(design: Object3D): Vector3 {
  const fronts = new Map<string, Vector3>()
  design.traverse((node) => {
    if (!node.name.startsWith('wall')) return
    const front = new Vector3(0, 0, 1).applyQuaternion(node.getWorldQuaternion(new Quaternion()))
    fronts.set(`${front.x.toFixed(1)} ${front.z.toFixed(1)}`, front)
  })
  const sum = [...fronts.values()].reduce((all, one) => all.add(one), new Vector3())
  return sum.length() > 0.1 ? sum.normalize() : new Vector3(0, 0, 1)
}

/** A renderer in a box, drawing only when something moved; null where there is no WebGL. */
function standUp(box: HTMLDivElement): Stage | null {
  let renderer: WebGLRenderer
  try {
    renderer = new WebGLRenderer({ antialias: true, preserveDrawingBuffer: true })
  } catch {
    return null
  }
  const scene = new Scene()
  scene.background = new Color(getComputedStyle(box).getPropertyValue('--paper').trim() || '#fffdf8')
  const camera = new PerspectiveCamera(42, 1, 0.05, 100)
  scene.add(new AmbientLight(0xffffff, 1.6))
  const sun = new DirectionalLight(0xffffff, 1.9)
  sun.position.set(2.5, 6, 5)
  scene.add(sun)
  const controls = new OrbitControls(camera, renderer.domElement)
  const draw = () => renderer.render(scene, camera)
  controls.addEventListener('change', draw)
  const fit = () => {
    const { clientWidth: w, clientHeight: h } = box
    renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2))
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
  const moves: Record<string, () => void> = {
    ArrowLeft: () => turn(-STEP_RAD, 0, 1),
    ArrowRight: () => turn(STEP_RAD, 0, 1),
    ArrowUp: () => turn(0, -STEP_RAD, 1),
    ArrowDown: () => turn(0, STEP_RAD, 1),
    '+': () => turn(0, 0, 1 / ZOOM),
    '=': () => turn(0, 0, 1 / ZOOM),
    '-': () => turn(0, 0, ZOOM),
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
      const bounds = new Box3().setFromObject(design)
      const middle = bounds.getCenter(new Vector3())
      const size = bounds.getSize(new Vector3())
      const front = openSide(design)
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
      controls.update()
      fit()
    },
    leave: () => {
      watcher.disconnect()
      box.removeEventListener('keydown', key)
      controls.dispose()
      renderer.dispose()
      renderer.domElement.remove()
    },
  }
}
