/** The folded piece in three dimensions: plates that turn on each other as core says. */
import {
  AmbientLight,
  Box3,
  BufferAttribute,
  BufferGeometry,
  type CanvasTexture,
  Color,
  DirectionalLight,
  FrontSide,
  Group,
  LineBasicMaterial,
  LineSegments,
  MathUtils,
  Mesh,
  MeshLambertMaterial,
  Object3D,
  PerspectiveCamera,
  Quaternion,
  Raycaster,
  Scene,
  Sphere,
  Vector2,
  Vector3,
  WebGLRenderer,
} from 'three';

import { token } from '../style/token';
import type { ArtView, FoldView, PlateView, StandView } from '../api/generated/types';
import type { PartView } from '../api/views';
import { artTexture } from './texture';

export type Side = 'outside' | 'inside';

interface Colours {
  card: string;
  ink: string;
  lit: string;
}

const TURN: Record<StandView, number> = { upright: 0, 'on-first': 90, lying: -90 };
/** Where the eye starts: degrees round the piece and above it. */
const EYE = { round: 32, above: 24 };

interface Plate {
  view: PlateView;
  group: Group;
  printed: Mesh;
  back: Mesh;
}

/** What a blank wears, and its size. */
interface Worn {
  size: [number, number];
  map: CanvasTexture;
}

const darker = (colour: string) => `#${new Color(colour).multiplyScalar(0.86).getHexString()}`;

const place = (numbers: number[]) => {
  const [x = 0, y = 0, z = 0, a = 0, b = 0, c = 0, d = 1] = numbers;
  return { at: new Vector3(x, y, z), turn: new Quaternion(a, b, c, d) };
};

export class FoldScene {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly world = new Group();
  private readonly camera = new PerspectiveCamera(28, 1, 1, 20000);
  private readonly sun = new DirectionalLight(token('fold-sun'), 2.1);
  private plates: Plate[] = [];
  /** What is printed on each blank and behind it, where something is. */
  private textures: Record<'front' | 'back', Worn | null>[] = [];
  private view: FoldView | null = null;
  private progress = 0;
  private round = EYE.round;
  private above = EYE.above;
  private zoom = 1;
  private readonly middle = new Vector3();
  private radius = 100;

  /** Throws where the browser has no WebGL. */
  constructor(private readonly canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.scene.add(this.world, new AmbientLight(token('fold-lamp'), 1.5), this.sun);
  }

  dispose() {
    this.clear();
    this.renderer.dispose();
  }

  private clear() {
    this.world.traverse((object: Object3D) => {
      if (object instanceof Mesh || object instanceof LineSegments) {
        (object.geometry as BufferGeometry).dispose();
        (object.material as MeshLambertMaterial).dispose();
      }
    });
    this.world.clear();
    this.textures.forEach(({ front, back }) => {
      front?.map.dispose();
      back?.map.dispose();
    });
    this.textures = [];
    this.plates = [];
  }

  resize(width: number, height: number) {
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / Math.max(1, height);
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  show(view: FoldView, colours: Colours, side: Side, parts: PartView[]) {
    this.clear();
    this.view = view;
    const worn = (part: PartView, art: ArtView | null, card: string) =>
      art && { size: part.size, map: artTexture(part, art, card, () => this.draw()) };
    this.textures = parts.map((part) => ({
      front: worn(part, part.art, colours.card),
      back: worn(part, part.behind, darker(colours.card)),
    }));
    this.world.rotation.set(MathUtils.degToRad(TURN[view.stand]), 0, 0);
    for (const plate of view.plates) this.add(plate, colours, side);
    this.pose(this.progress);
  }

  private add(view: PlateView, colours: Colours, side: Side) {
    const group = new Group();
    const points = new Float32Array(view.points);
    const mesh = (faces: number[], colour: string, name: string) => {
      const geometry = new BufferGeometry();
      // Corners of their own for each triangle, so that edges stay sharp.
      const corners = new Float32Array(faces.length * 3);
      faces.forEach((corner, index) => {
        corners.set(points.subarray(corner * 3, corner * 3 + 3), index * 3);
      });
      geometry.setAttribute('position', new BufferAttribute(corners, 3));
      geometry.computeVertexNormals();
      const made = new Mesh(
        geometry,
        new MeshLambertMaterial({
          color: colour,
          side: FrontSide,
          polygonOffset: true,
          polygonOffsetFactor: 0.1,
          polygonOffsetUnits: 2,
        }),
      );
      made.name = name;
      group.add(made);
      return made;
    };
    const texture = this.textures[view.part];
    // Seen from behind a blank is the other way round.
    const wear = (made: Mesh, own: Worn, isBehind: boolean) => {
      const { geometry } = made;
      const place = geometry.getAttribute('position');
      const [a, b, c, d, e, f] = view.frame;
      const [width, height] = own.size;
      const on = new Float32Array(place.count * 2);
      for (let at = 0; at < place.count; at += 1) {
        const [x, y] = [place.getX(at), place.getY(at)];
        const across = (a * x + c * y + e) / width;
        on[2 * at] = isBehind ? 1 - across : across;
        on[2 * at + 1] = 1 - (b * x + d * y + f) / height;
      }
      geometry.setAttribute('uv', new BufferAttribute(on, 2));
      (made.material as MeshLambertMaterial).map = own.map;
    };
    const sun = token('fold-sun');
    const printed = mesh(view.printed, texture?.front ? sun : colours.card, view.name);
    if (texture?.front) wear(printed, texture.front, false);
    const back = mesh(view.back, texture?.back ? sun : darker(colours.card), view.name);
    if (texture?.back) wear(back, texture.back, true);
    mesh(view.edges, colours.card, view.name);
    printed.visible = side === 'outside';
    const rims = new BufferGeometry();
    rims.setAttribute('position', new BufferAttribute(points, 3));
    // The rims of both faces: the other face's corners follow the printed one's.
    rims.setIndex([...view.rims, ...view.rims.map((corner) => corner + view.side)]);
    const ink = new LineBasicMaterial({ color: colours.ink });
    group.add(new LineSegments(rims, ink));
    const parent = view.parent === null ? this.world : this.plates[view.parent]?.group;
    (parent ?? this.world).add(group);
    this.plates.push({ view, group, printed, back });
  }

  /** Puts every plate where it is at this point of the folding. */
  pose(progress: number) {
    this.progress = progress;
    const view = this.view;
    if (!view) return;
    const step = Math.min(view.steps.length - 1, Math.max(0, Math.ceil(progress) - 1));
    const share = view.steps.length === 0 ? 0 : Math.min(1, Math.max(0, progress - step));
    const before = view.steps[step - 1];
    const after = view.steps[step];
    this.plates.forEach(({ view: plate, group }, index) => {
      if (plate.parent === null) {
        const from = place((before?.roots ?? view.laid)[plate.part] ?? []);
        const to = place((after?.roots ?? view.laid)[plate.part] ?? []);
        group.position.lerpVectors(from.at, to.at, share);
        group.quaternion.slerpQuaternions(from.turn, to.turn, share);
        return;
      }
      const start = before?.angles[index] ?? 0;
      const angle = start + ((after?.angles[index] ?? 0) - start) * share;
      const [[x, y], [tx, ty]] = plate.hinge;
      const folded = plate.fold === 0 ? 0 : Math.min(1, Math.max(0, angle / plate.fold));
      group.position.set(x, y, -plate.lift * folded * Math.sign(plate.fold));
      group.quaternion
        .setFromAxisAngle(new Vector3(0, 0, 1), Math.atan2(ty - y, tx - x))
        .multiply(
          new Quaternion().setFromAxisAngle(new Vector3(1, 0, 0), -MathUtils.degToRad(angle)),
        );
    });
    this.draw();
  }

  /** Frames the piece as it is now. */
  fit() {
    this.zoom = 1;
    this.frame();
    this.draw();
  }

  private frame() {
    this.world.updateMatrixWorld(true);
    const box = new Box3().setFromObject(this.world);
    const ball = box.getBoundingSphere(new Sphere());
    this.middle.copy(ball.center);
    this.radius = Math.max(1, ball.radius);
  }

  turn(round: number, above: number) {
    this.round += round;
    this.above = Math.min(89, Math.max(-89, this.above + above));
    this.draw();
  }

  reset() {
    Object.assign(this, { round: EYE.round, above: EYE.above });
    this.fit();
  }

  scale(factor: number) {
    this.zoom = Math.min(12, Math.max(0.3, this.zoom * factor));
    this.draw();
  }

  /** The plate under a point of the canvas. */
  at(x: number, y: number): string | null {
    const { width, height } = this.canvas.getBoundingClientRect();
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2((x / width) * 2 - 1, 1 - (y / height) * 2), this.camera);
    const meshes = this.plates.flatMap(({ printed, back }) =>
      printed.visible ? [printed, back] : [back],
    );
    return ray.intersectObjects(meshes, false)[0]?.object.name ?? null;
  }

  light(name: string | null, colours: Colours) {
    for (const plate of this.plates) {
      const glow = plate.view.name === name ? colours.lit : token('fold-dark');
      for (const mesh of [plate.printed, plate.back]) {
        const material = mesh.material as MeshLambertMaterial;
        material.emissive.set(glow);
        material.emissiveIntensity = 0.45;
      }
    }
    this.draw();
  }

  private draw() {
    if (!this.view) return;
    this.frame();
    const distance =
      (this.radius * 1.06) /
      Math.sin(MathUtils.degToRad(this.camera.fov / 2)) /
      Math.min(1, this.camera.aspect) /
      this.zoom;
    const [round, above] = [MathUtils.degToRad(this.round), MathUtils.degToRad(this.above)];
    const towards = new Vector3(
      Math.sin(round) * Math.cos(above),
      Math.sin(above),
      Math.cos(round) * Math.cos(above),
    );
    this.camera.position.copy(this.middle).addScaledVector(towards, distance);
    this.camera.near = Math.max(0.5, distance - this.radius * 3);
    this.camera.far = distance + this.radius * 4;
    this.camera.updateProjectionMatrix();
    this.camera.lookAt(this.middle);
    this.sun.position
      .copy(this.camera.position)
      .add(new Vector3(-0.6, 1.1, 0.2).multiplyScalar(distance));
    this.sun.target.position.copy(this.middle);
    this.sun.target.updateMatrixWorld();
    this.renderer.render(this.scene, this.camera);
  }
}
