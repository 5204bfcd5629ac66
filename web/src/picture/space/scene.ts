import type { Triangle } from '@plate-fold/core/fold';
import type { Vec3 } from '@plate-fold/core/geometry';
import {
  AmbientLight,
  BackSide,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
  EdgesGeometry,
  ExtrudeGeometry,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  OctahedronGeometry,
  PerspectiveCamera,
  Plane,
  Raycaster,
  Scene,
  Shape,
  Vector2,
  Vector3,
  WebGLRenderer,
} from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import type { ColoredSurface, Eye, Ghost, Section, Solid, Stand } from './contents';
import { CREASE, creasesOf } from './creases';
import { groundGeometry, tireGeometries } from './stand';

export interface SpaceScene {
  readonly solids: (list: readonly Solid[]) => void;
  /** parts of the vehicle, and what it stands on */
  readonly ghosts: (list: readonly Ghost[], stand?: Stand) => void;
  /** surfaces colored by a figure, and where the rock stands */
  readonly field: (list: readonly ColoredSurface[], rocks: readonly Vec3[]) => void;
  readonly section: (cut: Section | undefined) => void;
  /** reads the colors of the page's theme anew */
  readonly recolor: () => void;
  readonly resize: (width: number, height: number) => void;
  readonly eye: () => Eye;
  readonly lookFrom: (eye: Eye) => void;
  /** brings the chosen solid to the middle, as large as fits */
  readonly fit: () => void;
  /** comes nearer by a factor */
  readonly nearer: (factor: number) => void;
  /** where a point stands in the picture, px */
  readonly seenAt: (p: Vec3) => readonly [number, number] | undefined;
  /** the colored surface under a place in the picture, and where it is hit */
  readonly under: (px: number, py: number) => { readonly id: string; readonly at: Vec3 } | undefined;
  /** whether dragging turns the picture */
  readonly turns: (on: boolean) => void;
  readonly dispose: () => void;
}

const colorOf = (name: string): Color =>
  new Color(getComputedStyle(document.documentElement).getPropertyValue(name).trim() || '#888888');

const FIELD = 28;
/** Faces stand a little behind the lines on them, or the lines would break up. */
const BEHIND_LINES = { polygonOffset: true, polygonOffsetFactor: 1.5, polygonOffsetUnits: 2 } as const;

function geometryOf(triangles: readonly Triangle[]): BufferGeometry {
  const at = new Float32Array(triangles.length * 9);
  let i = 0;
  for (const t of triangles)
    for (const [x, y, z] of t) {
      at[i++] = x;
      at[i++] = y;
      at[i++] = z;
    }
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(at, 3));
  g.computeVertexNormals();
  return g;
}

const inUnit = (deg: number): number => (deg * Math.PI) / 180;

/**
 * A picture in space on a canvas, drawn only when something changed. Throws where the browser has no WebGL.
 * `onTurn` hears of every move of the eye.
 */
export function makeScene(canvas: HTMLCanvasElement, onTurn: () => void): SpaceScene {
  const renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
  renderer.localClippingEnabled = true;
  renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
  const scene = new Scene();
  const camera = new PerspectiveCamera(FIELD, 1, 60, 30_000);
  camera.up.set(0, 0, 1);
  const sun = new DirectionalLight(0xffffff, 2.1);
  sun.position.set(-0.5, 0.9, 1);
  camera.add(sun, new AmbientLight(0xffffff, 1.25));
  scene.add(camera);
  const plates = new Group();
  const parts = new Group();
  const fields = new Group();
  scene.add(plates, parts, fields);
  const controls = new OrbitControls(camera, canvas);
  controls.enableDamping = false;
  controls.minDistance = 120;
  controls.maxDistance = 20_000;

  let planes: Plane[] = [];
  let shown: readonly Solid[] = [];
  let ghosted: readonly Ghost[] = [];
  let stood: Stand | undefined;
  let asked = 0;
  const draw = (): void => {
    if (asked) return;
    asked = requestAnimationFrame(() => {
      asked = 0;
      renderer.render(scene, camera);
    });
  };
  controls.addEventListener('change', () => {
    draw();
    onTurn();
  });

  /*
   * Materials are kept for as long as the picture: a shader is made once, not at every step of the slider. Geometries
   * come and go with what is shown.
   */
  const kept = new Map<string, MeshLambertMaterial | MeshBasicMaterial | LineBasicMaterial>();
  const material = <T extends MeshLambertMaterial | MeshBasicMaterial | LineBasicMaterial>(
    name: string,
    make: () => T,
    color: Color,
  ): T => {
    const m = (kept.get(name) as T | undefined) ?? make();
    kept.set(name, m);
    m.color.copy(color);
    if (m.clippingPlanes?.length !== planes.length) m.needsUpdate = true;
    m.clippingPlanes = planes;
    return m;
  };
  const empty = (g: Group): void => {
    for (const child of [...g.children]) {
      g.remove(child);
      if (child instanceof Mesh || child instanceof LineSegments) child.geometry.dispose();
    }
  };
  const layPlates = (): void => {
    empty(plates);
    const line = colorOf('--ink');
    for (const s of shown) {
      if (s.triangles.length === 0) continue;
      const g = geometryOf(s.triangles);
      const tone = colorOf(s.tone);
      if (!s.chosen) tone.lerp(colorOf('--ground'), 0.45);
      const look = s.chosen ? 'chosen' : 'other';
      plates.add(
        new Mesh(
          g,
          material(`${s.tone} ${look}`, () => new MeshLambertMaterial(BEHIND_LINES), tone),
        ),
      );
      // where a section opens the sheet its inside is seen: drawn full, as a cut is
      if (planes.length > 0)
        plates.add(
          new Mesh(
            g,
            material('cut', () => new MeshBasicMaterial({ side: BackSide, ...BEHIND_LINES }), line),
          ),
        );
      plates.add(
        new LineSegments(
          new EdgesGeometry(g, CREASE),
          material(
            `line ${look}`,
            () => new LineBasicMaterial({ transparent: true, opacity: s.chosen ? 0.85 : 0.35 }),
            line,
          ),
        ),
      );
    }
    draw();
  };
  const layStand = (stand: Stand, gray: Color): void => {
    const line = (name: string, opacity: number) =>
      material(name, () => new LineBasicMaterial({ transparent: true, opacity }), gray);
    const tire = material(
      'tire',
      () => new MeshLambertMaterial({ transparent: true, opacity: 0.1, depthWrite: false }),
      gray,
    );
    for (const g of tireGeometries(stand))
      parts.add(new Mesh(g, tire), new LineSegments(new EdgesGeometry(g, 20), line('tire line', 0.55)));
    parts.add(new LineSegments(groundGeometry(stand), line('ground', 0.3)));
  };
  const layParts = (): void => {
    empty(parts);
    const gray = colorOf('--ghostline');
    for (const p of ghosted) {
      const shape = new Shape();
      p.footprint.forEach(([x, y], i) => {
        if (i === 0) shape.moveTo(x, y);
        else shape.lineTo(x, y);
      });
      const g = new ExtrudeGeometry(shape, { depth: p.zTop - p.zBottom, bevelEnabled: false });
      g.translate(0, 0, p.zBottom);
      parts.add(
        new Mesh(
          g,
          material(
            'ghost',
            () => new MeshLambertMaterial({ transparent: true, opacity: 0.2, depthWrite: false }),
            gray,
          ),
        ),
        new LineSegments(
          new EdgesGeometry(g, 20),
          material('ghost line', () => new LineBasicMaterial({ transparent: true, opacity: 0.7 }), gray),
        ),
      );
    }
    if (stood) layStand(stood, gray);
    draw();
  };

  let colored: readonly ColoredSurface[] = [];
  const layField = (list: readonly ColoredSurface[], rocks: readonly Vec3[]): void => {
    colored = list;
    empty(fields);
    for (const s of list) {
      const g = new BufferGeometry();
      g.setAttribute('position', new BufferAttribute(s.coordinates, 3));
      g.setAttribute('color', new BufferAttribute(s.colors, 3));
      g.setIndex(new BufferAttribute(s.triangles, 1));
      g.computeVertexNormals();
      const edges = new BufferGeometry();
      edges.setAttribute('position', g.getAttribute('position'));
      edges.setIndex(new BufferAttribute(creasesOf(s), 1));
      const surface = new Mesh(
        g,
        material(
          'field',
          () => new MeshLambertMaterial({ vertexColors: true, side: DoubleSide, ...BEHIND_LINES }),
          new Color(0xffffff),
        ),
      );
      surface.name = s.id;
      fields.add(
        surface,
        new LineSegments(
          edges,
          material(
            'line field',
            () => new LineBasicMaterial({ transparent: true, opacity: 0.7 }),
            colorOf('--ink'),
          ),
        ),
      );
    }
    for (const p of rocks) {
      const rock = new Mesh(
        new OctahedronGeometry(36),
        material('rock', () => new MeshLambertMaterial({ flatShading: true }), colorOf('--marker')),
      );
      rock.position.set(p[0], p[1], p[2] - 40);
      fields.add(rock);
    }
    draw();
  };

  /** Corners of what the picture is about. */
  const looked = (): readonly Vector3[] => {
    const out = shown.filter(s => s.chosen).flatMap(s => s.triangles.flat().map(p => new Vector3(...p)));
    for (const { coordinates: c } of colored)
      for (let i = 0; i < c.length; i += 3)
        out.push(new Vector3(c[i] as number, c[i + 1] as number, c[i + 2] as number));
    return out;
  };
  const eye = (): Eye => {
    const d = camera.position.clone().sub(controls.target);
    return {
      turn: (Math.atan2(-d.y, -d.x) * 180) / Math.PI,
      lift: (Math.asin(d.z / (d.length() || 1)) * 180) / Math.PI,
    };
  };
  const lookFrom = ({ turn, lift }: Eye): void => {
    const far = camera.position.distanceTo(controls.target) || 2000;
    const l = inUnit(Math.max(-88.5, Math.min(88.5, lift)));
    const t = inUnit(turn);
    camera.position
      .set(-Math.cos(t) * Math.cos(l), -Math.sin(t) * Math.cos(l), Math.sin(l))
      .multiplyScalar(far)
      .add(controls.target);
    controls.update();
    draw();
    onTurn();
  };
  return {
    solids: list => {
      shown = list;
      layPlates();
    },
    ghosts: (list, stand) => {
      ghosted = list;
      stood = stand;
      layParts();
    },
    field: layField,
    under: (px, py) => {
      const { clientWidth, clientHeight } = canvas;
      const ray = new Raycaster();
      ray.setFromCamera(new Vector2((px / clientWidth) * 2 - 1, 1 - (py / clientHeight) * 2), camera);
      const [hit] = ray.intersectObjects(
        fields.children.filter(c => c instanceof Mesh && c.name !== ''),
        false,
      );
      return hit && { id: hit.object.name, at: [hit.point.x, hit.point.y, hit.point.z] };
    },
    turns: on => {
      controls.enabled = on;
    },
    section: cut => {
      // what lies beyond the cut, towards front or left, is taken away
      planes = cut
        ? [new Plane(new Vector3(cut.axis === 'x' ? 1 : 0, cut.axis === 'y' ? 1 : 0, 0), -cut.at)]
        : [];
      layPlates();
      layParts();
    },
    recolor: () => {
      layPlates();
      layParts();
    },
    resize: (width, height) => {
      renderer.setSize(width, height, false);
      camera.aspect = width / Math.max(height, 1);
      camera.updateProjectionMatrix();
      draw();
    },
    eye,
    lookFrom,
    fit: () => {
      const points = looked();
      if (points.length === 0) return;
      const low = new Vector3(Infinity, Infinity, Infinity);
      const high = new Vector3(-Infinity, -Infinity, -Infinity);
      for (const p of points) {
        low.min(p);
        high.max(p);
      }
      const now = eye();
      controls.target.copy(low).add(high).multiplyScalar(0.5);
      lookFrom(now);
      // as near as every corner allows, seen from here
      const [right, upward, back] = [new Vector3(), new Vector3(), new Vector3()];
      camera.updateMatrixWorld();
      camera.matrixWorld.extractBasis(right, upward, back);
      const tan = Math.tan(inUnit(FIELD) / 2);
      let far = 100;
      for (const p of points) {
        const q = p.clone().sub(controls.target);
        const depth = q.dot(back);
        far = Math.max(
          far,
          Math.abs(q.dot(right)) / (tan * camera.aspect) + depth,
          Math.abs(q.dot(upward)) / tan + depth,
        );
      }
      camera.position.copy(controls.target).addScaledVector(back, far * 1.06);
      controls.update();
      draw();
      onTurn();
    },
    nearer: factor => {
      camera.position.sub(controls.target).divideScalar(factor).add(controls.target);
      controls.update();
      draw();
    },
    seenAt: p => {
      const v = new Vector3(...p).project(camera);
      if (v.z > 1) return undefined;
      const { clientWidth, clientHeight } = canvas;
      return [((v.x + 1) / 2) * clientWidth, ((1 - v.y) / 2) * clientHeight];
    },
    dispose: () => {
      cancelAnimationFrame(asked);
      controls.dispose();
      empty(plates);
      empty(parts);
      empty(fields);
      for (const m of kept.values()) m.dispose();
      renderer.dispose();
    },
  };
}
