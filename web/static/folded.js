// The folded view: the server says where every face stands at every moment of
// the making; here it is only shown, lit and turned. Loaded when it is opened.
import * as THREE from "./vendor/three.module.min.js";

const still = matchMedia("(prefers-reduced-motion: reduce)");
let view = null; // one for the page: a browser gives only so many
const opened = new WeakSet();
let asked = 0;

// --- What the server sends, as meshes.

// card makes a face with its thickness: inside up, outside down, edges between.
function card(shape, caliper, tile) {
  const { points, triangles, rings, mid } = shape, z = caliper / 2;
  const position = [], normal = [], uv = [], index = [];
  const surface = (height, up) => {
    const start = position.length / 3;
    for (let i = 0; i < points.length; i += 2) {
      position.push(points[i], points[i + 1], height);
      normal.push(0, 0, up);
      uv.push((mid[0] + points[i]) / tile, -(mid[1] - points[i + 1]) / tile);
    }
    return start;
  };
  const geometry = new THREE.BufferGeometry();
  const from = (a, b) => [points[2 * b] - points[2 * a], points[2 * b + 1] - points[2 * a + 1]];
  const turn = (a, b, c) => {
    const [ux, uy] = from(a, b), [vx, vy] = from(a, c);
    return Math.sign(ux * vy - vx * uy);
  };
  for (const [height, up, material] of [[z, 1, 0], [-z, -1, 1]]) {
    const start = surface(height, up), first = index.length;
    for (let i = 0; i < triangles.length; i += 3) {
      const [a, b, c] = triangles.slice(i, i + 3);
      if (turn(a, b, c) * up > 0) index.push(start + a, start + b, start + c);
      else index.push(start + a, start + c, start + b);
    }
    geometry.addGroup(first, index.length - first, material);
  }
  // A raw edge shows the card's inside; round a crease its outside goes on.
  const raw = [], round = [], creases = new Set(shape.creases);
  rings.forEach((ring, r) => {
    for (let i = 0; i < ring.length; i++) {
      const a = ring[i], b = ring[(i + 1) % ring.length], start = position.length / 3;
      const [dx, dy] = from(a, b), long = Math.hypot(dx, dy) || 1;
      for (const [k, h] of [[a, z], [b, z], [b, -z], [a, -z]]) {
        position.push(points[2 * k], points[2 * k + 1], h);
        normal.push(dy / long, -dx / long, 0);
        uv.push((mid[0] + points[2 * k]) / tile, -(mid[1] - points[2 * k + 1]) / tile);
      }
      (r === 0 && creases.has(i) ? round : raw).push(start, start + 1, start + 2, start, start + 2, start + 3);
    }
  });
  for (const [sides, material] of [[raw, 2], [round, 1]]) {
    geometry.addGroup(index.length, sides.length, material);
    index.push(...sides);
  }
  geometry.setAttribute("position", new THREE.Float32BufferAttribute(position, 3));
  geometry.setAttribute("normal", new THREE.Float32BufferAttribute(normal, 3));
  geometry.setAttribute("uv", new THREE.Float32BufferAttribute(uv, 2));
  geometry.setIndex(index);
  return geometry;
}

// rim draws the edges of a face on one of its sides, a hair off the card so that
// they are not lost in it. Only the side that is seen shows its rim: card is
// thinner than a pixel, and the other one would shine through.
const hair = 0.03; // mm
function rim(shape, z) {
  const at = [], smooth = new Set(shape.smooth);
  for (const ring of shape.rings) {
    for (let i = 0; i < ring.length; i++) {
      if (ring === shape.rings[0] && smooth.has(i)) continue;
      for (const k of [ring[i], ring[(i + 1) % ring.length]]) at.push(shape.points[2 * k], shape.points[2 * k + 1], z);
    }
  }
  return new THREE.BufferGeometry().setAttribute("position", new THREE.Float32BufferAttribute(at, 3));
}

// printed gives the outside's pattern, once its picture is there.
function printed(tile, ready) {
  if (!tile) return null;
  const texture = new THREE.Texture();
  const picture = new Image();
  picture.onload = () => { texture.image = picture; texture.needsUpdate = true; ready(); };
  picture.src = tile;
  texture.wrapS = texture.wrapT = THREE.RepeatWrapping;
  texture.colorSpace = THREE.SRGBColorSpace;
  texture.anisotropy = 4;
  return texture;
}

// thing makes what goes inside, in its shape.
function thing(t, material) {
  const size = t.hi.map((h, i) => h - t.lo[i]), mid = t.hi.map((h, i) => (h + t.lo[i]) / 2);
  const group = new THREE.Group();
  const add = (geometry, at, axis) => {
    const mesh = new THREE.Mesh(geometry, material);
    mesh.position.set(...at);
    if (axis === 0) mesh.rotation.z = Math.PI / 2;
    if (axis === 2) mesh.rotation.x = Math.PI / 2;
    group.add(mesh);
  };
  const can = (r, h) => new THREE.CylinderGeometry(r, r, h, 40);
  if (t.shape === 0) add(new THREE.BoxGeometry(...size), mid);
  else if (t.shape === 2) add(new THREE.SphereGeometry(Math.min(...size) / 2, 32, 20), mid);
  else if (t.shape === 3) add(can(size[2] / 2, size[0]), mid, 0);
  else if (t.shape === 4) add(can(size[2] / 2, size[1]), mid);
  else {
    const top = t.neck ? t.shoulder : t.hi[2];
    add(can(Math.min(size[0], size[1]) / 2, top - t.lo[2]), [mid[0], mid[1], (top + t.lo[2]) / 2], 2);
    if (t.neck) add(can(t.neck, t.hi[2] - top), [mid[0], mid[1], (top + t.hi[2]) / 2], 2);
  }
  return group;
}

// --- The view.

class View {
  constructor() {
    this.renderer = new THREE.WebGLRenderer({ antialias: true, alpha: true });
    this.renderer.setPixelRatio(Math.min(devicePixelRatio, 2));
    this.canvas = this.renderer.domElement;
    this.camera = new THREE.PerspectiveCamera(28, 1, 1, 10000);
    this.camera.up.set(0, 0, 1);
    this.zoom = 1;
    this.waiting = 0;
  }

  // build takes a solid in, in place of the one before.
  build(solid) {
    if (this.scene) this.scene.traverse((o) => {
      if (o.geometry) o.geometry.dispose();
      for (const m of [o.material || []].flat()) { if (m.map) m.map.dispose(); m.dispose(); }
    });
    this.solid = solid;
    this.scene = new THREE.Scene();
    this.scene.add(new THREE.AmbientLight(0xffffff, 2.1));
    const sun = new THREE.DirectionalLight(0xffffff, 1.5);
    sun.position.set(-0.45, -0.7, 1);
    this.scene.add(sun);
    const paint = (colour, more) => new THREE.MeshLambertMaterial({ color: colour, ...more });
    const sides = solid.cards.map((c) => {
      const map = printed(c.tile, () => this.show(this.at, this.lift));
      return [paint(c.inside), map ? paint(0xffffff, { map }) : paint(c.outside), paint(c.inside)];
    });
    const glues = sides.map((side) => side.map((m) => {
      const g = m.clone();
      g.color.lerp(new THREE.Color("#2f9e8f"), 0.55);
      return g;
    }));
    const ink = new THREE.LineBasicMaterial({ color: 0x3b3128, transparent: true, opacity: 0.75 });
    const cards = [], rims = []; // of a shape, of the card of the first face that has it
    for (const f of solid.faces) {
      const shape = solid.shapes[f.shape], { caliper } = solid.cards[f.card || 0], far = caliper / 2 + hair;
      cards[f.shape] ||= card(shape, caliper, solid.cards[f.card || 0].tileSize);
      rims[f.shape] ||= [rim(shape, far), rim(shape, -far)];
    }
    this.faces = solid.faces.map((f) => {
      const side = sides[f.card || 0], glue = glues[f.card || 0];
      const mesh = new THREE.Mesh(cards[f.shape], side);
      for (const r of rims[f.shape]) mesh.add(new THREE.LineSegments(r, ink));
      this.scene.add(mesh);
      const panel = (f.on || f.name).replaceAll(" ", "-");
      return { mesh, side, glue, panel, moves: f.moves, behind: solid.shapes[f.shape].behind };
    });
    this.things = new THREE.Group();
    const wood = new THREE.MeshLambertMaterial({ color: 0xc9a36b });
    for (const t of solid.things) this.things.add(thing(t, wood));
    this.scene.add(this.things);
  }

  // place sets every face where it stands at a frame, in between if need be.
  place(frame) {
    const q = new THREE.Quaternion();
    for (const f of this.faces) {
      const m = f.moves;
      let i = 0;
      while (i + 8 < m.length && m[i + 8] <= frame) i += 8;
      const k = i + 8 < m.length ? i + 8 : i;
      const u = k === i ? 0 : (frame - m[i]) / (m[k] - m[i]);
      f.mesh.position.set(...[1, 2, 3].map((n) => m[i + n] + (m[k + n] - m[i + n]) * u));
      f.mesh.quaternion.fromArray(m, i + 4).slerp(q.fromArray(m, k + 4), u);
    }
    this.things.visible = frame >= this.solid.filled;
  }

  // show draws the moment: so many steps done, and opened so far.
  show(at, lift) {
    this.at = at;
    this.lift = lift;
    if (this.waiting || !this.solid) return;
    this.waiting = requestAnimationFrame(() => { this.waiting = 0; this.draw(); });
  }

  draw() {
    const { steps, closed, open } = this.solid;
    const step = Math.min(steps.length - 1, Math.max(0, Math.ceil(this.at) - 1));
    const from = step ? steps[step - 1].end : 0;
    let frame = from + (steps[step].end - from) * Math.min(1, Math.max(0, this.at - step));
    if (this.at >= steps.length) frame = closed + (open - closed) * this.lift;
    this.place(frame);
    const lit = new Set(this.at > 0 && this.at < steps.length ? steps[step].glued || [] : []);
    this.faces.forEach((f, i) => { f.mesh.material = lit.has(i) ? f.glue : f.side; });
    const box = new THREE.Box3().setFromObject(this.scene), mid = box.getCenter(new THREE.Vector3());
    const radius = box.getSize(new THREE.Vector3()).length() / 2;
    const narrow = Math.max(1, 1 / Math.min(1.4, this.camera.aspect));
    const far = radius * 1.06 / Math.sin(this.camera.fov * Math.PI / 360) / this.zoom * narrow;
    const yaw = this.yaw * Math.PI / 180, pitch = this.pitch * Math.PI / 180;
    const level = Math.cos(pitch);
    this.camera.position.set(Math.sin(yaw) * level, -Math.cos(yaw) * level, Math.sin(pitch)).multiplyScalar(far).add(mid);
    this.camera.lookAt(mid);
    this.camera.near = Math.max(1, far - 2 * radius);
    this.camera.far = far + 2 * radius;
    this.camera.updateProjectionMatrix();
    const towards = new THREE.Vector3();
    for (const { mesh, behind } of this.faces) {
      const eye = this.camera.position.clone().sub(mesh.position);
      const inside = towards.set(0, 0, 1).applyQuaternion(mesh.quaternion).dot(eye) > 0;
      [mesh.children[0].visible, mesh.children[1].visible] = [inside, !inside && !behind];
    }
    const start = performance.now();
    this.renderer.render(this.scene, this.camera);
    this.canvas.dataset.ms = (performance.now() - start).toFixed(1);
    this.canvas.dataset.frame = frame.toFixed(2);
  }

  // faceAt names the panel that is seen at a place of the picture: of what is stuck on,
  // the panel it is stuck on.
  faceAt(x, y, figure) {
    if (this.waiting) { cancelAnimationFrame(this.waiting); this.waiting = 0; this.draw(); }
    // While a change is on its way the server's picture stands in the view's place.
    const box = (this.canvas.isConnected ? this.canvas : figure).getBoundingClientRect();
    const at = new THREE.Vector2(2 * (x - box.left) / box.width - 1, 1 - 2 * (y - box.top) / box.height);
    const ray = new THREE.Raycaster();
    ray.setFromCamera(at, this.camera);
    const [hit] = ray.intersectObjects(this.faces.map((f) => f.mesh), false);
    const face = hit && this.faces.find((f) => f.mesh === hit.object);
    return face ? face.panel : "";
  }

  fit(figure) {
    const w = figure.clientWidth, h = Math.max(260, Math.min(480, w * 0.7));
    this.renderer.setSize(w, h);
    this.camera.aspect = w / h;
    this.show(this.at, this.lift);
  }
}

// --- The page.

// open puts the view in place of the still picture. It may be called again
// when the page has changed: the view stays as it was turned.
export async function open(form) {
  view ||= new View();
  const figure = form.querySelector("figure");
  const turn = ++asked;
  const answer = await fetch(form.dataset.solid, { headers: { Accept: "application/json" } });
  const solid = answer.ok && await answer.json();
  if (!solid || !form.isConnected || turn < asked) return; // a newer one is on its way
  view.build(solid);
  figure.replaceChildren(view.canvas);
  form.classList.add("turned-here");
  const at = () => Number(form.at.value), lift = () => Number(form.lift.value) / 100;
  if (opened.has(form)) { // seen as it was: the box alone has changed
    if (view.of === Number(form.at.max)) form.at.value = view.at;
    form.lift.value = view.lift * 100;
    form.yaw.value = view.yaw;
    form.pitch.value = view.pitch;
  }
  view.yaw = Number(form.yaw.value);
  view.pitch = Number(form.pitch.value);
  view.of = Number(form.at.max);
  view.at = at();
  view.lift = lift();
  view.fit(figure);
  if (opened.has(form)) return;
  opened.add(form);
  form.addEventListener("input", (e) => {
    e.stopPropagation(); // nothing to ask the server
    if (e.target.name === "yaw") view.yaw = Number(form.yaw.value);
    if (e.target.name === "pitch") view.pitch = Number(form.pitch.value);
    view.show(at(), lift());
  }, true);
  figure.addEventListener("wheel", (e) => {
    if (document.activeElement !== figure && !e.ctrlKey) return; // the page scrolls
    e.preventDefault();
    nearer(e.deltaY < 0 ? 1.1 : 1 / 1.1);
  }, { passive: false });
  figure.addEventListener("keydown", (e) => {
    if (e.key === "+" || e.key === "=") nearer(1.15);
    else if (e.key === "-") nearer(1 / 1.15);
    else return;
    e.preventDefault();
  });
  new ResizeObserver(() => { if (figure.contains(view.canvas)) view.fit(figure); }).observe(figure);
  pinch(figure);
  point(figure);
}

// A click that did not turn the box points at a face.
function point(figure) {
  let from = null;
  const say = (name, detail) => figure.dispatchEvent(new CustomEvent(name, { bubbles: true, detail }));
  figure.addEventListener("pointerdown", (e) => { from = [e.clientX, e.clientY]; });
  figure.addEventListener("pointerup", (e) => {
    const still = from && Math.hypot(e.clientX - from[0], e.clientY - from[1]) < 5;
    from = null;
    if (still && !e.button) say("face:pointed", view.faceAt(e.clientX, e.clientY, figure));
  });
  figure.addEventListener("pointermove", (e) => {
    if (!from) say("face:over", view.faceAt(e.clientX, e.clientY, figure));
  });
}

function nearer(by) {
  view.zoom = Math.min(6, Math.max(0.5, view.zoom * by));
  view.show(view.at, view.lift);
}

// Two fingers pull the box nearer.
function pinch(figure) {
  const fingers = new Map();
  const apart = () => { const [a, b] = [...fingers.values()]; return Math.hypot(a[0] - b[0], a[1] - b[1]); };
  figure.addEventListener("pointerdown", (e) => fingers.set(e.pointerId, [e.clientX, e.clientY]));
  figure.addEventListener("pointermove", (e) => {
    if (!fingers.has(e.pointerId)) return;
    const before = fingers.size === 2 && apart();
    fingers.set(e.pointerId, [e.clientX, e.clientY]);
    if (before) nearer(apart() / before);
  });
  for (const name of ["pointerup", "pointercancel"]) figure.addEventListener(name, (e) => fingers.delete(e.pointerId));
}

// play goes through the steps to the end; where motion is unwelcome, it goes
// from step to step without one.
let playing = 0;
export function play(form, done) {
  if (playing) { cancelAnimationFrame(playing); playing = 0; done(); return; }
  const end = Number(form.at.max);
  if (Number(form.at.value) >= end) form.at.value = 0;
  let last = performance.now(), shown = Number(form.at.value);
  const tick = (now) => {
    shown = Math.min(end, shown + (now - last) / 1100);
    last = now;
    form.at.value = still.matches ? Math.floor(shown) : shown;
    form.at.dispatchEvent(new Event("input", { bubbles: true }));
    if (shown < end && form.isConnected) playing = requestAnimationFrame(tick);
    else { playing = 0; done(); }
  };
  playing = requestAnimationFrame(tick);
}
