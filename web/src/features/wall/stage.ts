/** A stage with one body on it, turned by dragging; drawn only when something changes. */
import {
  BufferGeometry,
  DoubleSide,
  Float32BufferAttribute,
  HemisphereLight,
  Mesh as Body,
  MeshLambertMaterial,
  PerspectiveCamera,
  Scene,
  WebGLRenderer,
} from 'three'
import { OrbitControls } from 'three/addons/controls/OrbitControls.js'

import { facesOf, type Mesh, toneOf } from './shape'

export function stageIn(host: HTMLElement): { show: (mesh: Mesh) => void; close: () => void } {
  const renderer = new WebGLRenderer({ antialias: true, alpha: true })
  const scene = new Scene()
  const camera = new PerspectiveCamera(32, 1, 0.1, 50)
  camera.position.set(-2.6, 3.1, 5)
  scene.add(new HemisphereLight(0xffffff, 0x9a927f, 2.6))
  const geometry = new BufferGeometry()
  const material = new MeshLambertMaterial({ vertexColors: true, side: DoubleSide })
  scene.add(new Body(geometry, material))
  const controls = new OrbitControls(camera, renderer.domElement)
  controls.enablePan = false
  const draw = () => renderer.render(scene, camera)
  controls.addEventListener('change', draw)
  host.append(renderer.domElement)
  const fit = () => {
    renderer.setPixelRatio(Math.min(2, window.devicePixelRatio))
    renderer.setSize(host.clientWidth, host.clientHeight)
    camera.aspect = host.clientWidth / Math.max(1, host.clientHeight)
    camera.updateProjectionMatrix()
    draw()
  }
  const seen = new ResizeObserver(fit)
  seen.observe(host)
  return {
    show(mesh) {
      const positions: number[] = []
      const colours: number[] = []
      for (const { at } of facesOf(mesh)) {
        for (const corner of [at[0], at[1], at[2], at[0], at[2], at[3]]) {
          positions.push(...(mesh.corners[corner] ?? [0, 0, 0]))
          colours.push(...toneOf(mesh.shares[corner] ?? 0))
        }
      }
      geometry.setAttribute('position', new Float32BufferAttribute(positions, 3))
      geometry.setAttribute('color', new Float32BufferAttribute(colours, 3))
      geometry.computeVertexNormals()
      geometry.computeBoundingSphere()
      const away = ((geometry.boundingSphere?.radius ?? 2) / Math.sin((camera.fov * Math.PI) / 360)) * 1.02
      camera.position.setLength(away)
      fit()
    },
    close() {
      seen.disconnect()
      controls.dispose()
      geometry.dispose()
      material.dispose()
      renderer.dispose()
      renderer.domElement.remove()
    },
  }
}
