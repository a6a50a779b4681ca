// Lanes of a capture: each has a strip of its own, all share the time. What is shown is fetched in
// its own detail: least and most of each column, so that no peak is lost however far one looks.

const page = document.getElementById('capture');
const canvas = document.getElementById('drawing');
const told = document.getElementById('cursor');
const laid = document.getElementById('laid');
const STRIP = 96;
const NAME = 18;
const RULER = 26;
const GAP = 8;
const LEFT = 64;
const colours = ['--sheet', '--violet', '--teal', '--amber', '--soft', '--ink', '--line', '--coral'];
const hidden = new Set();
const turned = new Set();
const tall = new Set();
const smooth = new Map();
const over = new Set();
const larger = new Map();
const raised = new Map();
// the end of what comes in is followed until somebody looks elsewhere
const FOLLOW_MILLIS = 400;
let order = [];
let ink = {};
let due = 0;

let picture = null;
let under = null;
let range = [0, 0];
let length = 0;
let cursor = null;
let pinned = null;
let asked = 0;
let waiting = 0;

// asked of the page once a picture: it would lay itself out for each of a thousand columns
let wide = canvas.clientWidth - LEFT;
const width = () => wide;
// live values of a take that was taken away meanwhile are gone
const shown = () =>
  order.filter(i => !hidden.has(i) && picture.lanes[i]).map(i => ({ lane: picture.lanes[i], i }));

// lanes in strips of their own, each with those that lie over it
function stacked() {
  const all = [];
  for (const row of shown()) {
    if (all.length && over.has(row.i)) all.at(-1).push(row);
    else all.push([row]);
  }
  return all;
}
const strips = i => (tall.has(i) ? 2 * STRIP : STRIP);

async function fetched(address, from, to) {
  const columns = Math.max(50, Math.round(width()));
  const join = address.includes('?') ? '&' : '?';
  // a program that is away for a moment leaves the picture as it is
  const answer = await fetch(`${address}${join}from=${from}&to=${to}&columns=${columns}`).catch(() => null);
  return answer?.ok ? answer.json().catch(() => null) : null;
}

// of a part, or of all of it when its end is below zero
async function fetchAll(from, to) {
  const mine = ++asked;
  const got = await fetched(page.dataset.picture, from, to);
  const other = page.dataset.beside ? await fetched(page.dataset.beside, from, to) : null;
  if (mine !== asked || !got) return got !== null;
  picture = got;
  under = other;
  length = got.length;
  picture.lanes.forEach(lane => (lane.seen = bounds(lane)));
  under?.lanes.forEach(lane => (lane.seen = bounds(lane)));
  if (under && laid) laid.textContent = under.told;
  if (range[1] === 0 || to < 0) range = [got.from, got.to];
  if (order.length === 0) {
    order = picture.lanes.map((lane, i) => i);
    picture.lanes.forEach((lane, i) => lane.aside && hidden.add(i));
    if (order.length) rows();
  }
  draw();
  return true;
}

// what comes in is looked at with its end, unless somebody looks at a part before it
async function follow() {
  const span = range[1] - range[0];
  const atEnd = length - range[1] < span / 1000;
  const part = !atEnd ? range : range[0] === 0 ? [0, -1] : [Math.max(0, length - span), -1];
  const answered = await fetchAll(...part);
  if (picture && !picture.going) location.reload();
  else setTimeout(follow, answered ? FOLLOW_MILLIS : 10 * FOLLOW_MILLIS);
}

const x = t => LEFT + ((t - range[0]) / (range[1] - range[0])) * width();
const time = px => range[0] + ((px - LEFT) / width()) * (range[1] - range[0]);
const value = (lane, step) => step * lane.scale + lane.offset;

// least and most of what is seen of a lane
function bounds(lane) {
  let low = Infinity;
  let high = -Infinity;
  for (const step of lane.extents) {
    if (step === null) continue;
    const v = value(lane, step);
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return [low, high];
}

// a strip is as tall as what is seen of its lane, and of the one under it
function limits(lane, other, i) {
  let low = Math.min(lane.seen[0], other?.seen[0] ?? Infinity);
  let high = Math.max(lane.seen[1], other?.seen[1] ?? -Infinity);
  const half = (high - low) / 2 / (larger.get(i) ?? 1);
  const middle = (high + low) / 2 - (raised.get(i) ?? 0) * 2 * half;
  [low, high] = [middle - half, middle + half];
  const room = (high - low || 1) * 0.05;
  return turned.has(i) ? [high + room, low - room] : [low - room, high + room];
}

// the mean of so many neighbouring columns; at the ends of those that there are
function smoothed(lane, columns) {
  const middle = [];
  for (let c = 0; c < lane.extents.length / 2; c++) {
    middle.push((lane.extents[2 * c] + lane.extents[2 * c + 1]) / 2);
  }
  const reach = (columns - 1) / 2;
  return middle.flatMap((m, c) => {
    if (lane.extents[2 * c] === null) return [null, null];
    const near = middle.slice(Math.max(0, c - reach), c + reach + 1);
    const mean = near.reduce((sum, v) => sum + v, 0) / near.length;
    return [mean, mean];
  });
}

// each column is a bar from its least to its most, as wide as it is, with a thin one up or down to
// the next where they do not meet: many times quicker than a line that goes up and down a screen
const THICK = 1.3;

function line(ctx, lane, extents, from, to, top, height, limits, colour) {
  const columns = extents.length / 2;
  const rise = (height - NAME) / (limits[1] - limits[0]);
  const y = step => top + height - (value(lane, step) - limits[0]) * rise;
  const begin = x(from);
  const apart = (x(to) - begin) / columns;
  const first = Math.max(0, Math.floor((LEFT - begin) / apart) - 1);
  const last = Math.min(columns, Math.ceil((LEFT + wide - begin) / apart) + 1);
  ctx.fillStyle = colour;
  let before = null;
  for (let c = first; c < last; c++) {
    if (extents[2 * c] === null) {
      before = null;
      continue;
    }
    const ends = [y(extents[2 * c]), y(extents[2 * c + 1])];
    const high = Math.min(...ends);
    const low = Math.max(...ends);
    const at = begin + c * apart;
    if (before && (before.low < high || before.high > low)) {
      const bridge = before.low < high ? [before.low, high] : [low, before.high];
      ctx.fillRect(at, bridge[0], THICK, bridge[1] - bridge[0] + THICK);
    }
    ctx.fillRect(at, high - THICK / 2, Math.max(THICK, apart), low - high + THICK);
    before = { high, low };
  }
}

// what smoothing does is said beside the lane's name
function span(columns) {
  const all = picture.lanes[0].extents.length / 2;
  const seconds = (columns * (picture.to - picture.from)) / all;
  return seconds >= 1 ? `${seconds.toFixed(1)} s` : `${(1000 * seconds).toPrecision(2)} ms`;
}

const rounded = v => {
  if (!Number.isFinite(v)) return '–';
  return v.toFixed(Math.abs(v) >= 100 ? 0 : Math.abs(v) >= 10 ? 1 : 2);
};

// lanes that lie over each other keep their colours, in the order in which they come
const OVER = ['--teal', '--coral', '--amber', '--ink'];

function strip(ctx, rows, top) {
  const height = strips(rows[0].i);
  ctx.fillStyle = ink['--sheet'];
  ctx.fillRect(LEFT, top, width(), height);
  let begin = LEFT + 6;
  rows.forEach(({ lane, i }, n) => {
    const other = under?.lanes.find(l => l.name === lane.name);
    const limit = limits(lane, other, i);
    const columns = smooth.get(i);
    const seen = l => (columns ? smoothed(l, columns) : l.extents);
    const its = ink[OVER[n % OVER.length]];
    ctx.save();
    ctx.beginPath();
    ctx.rect(LEFT, top, width(), height);
    ctx.clip();
    if (other) line(ctx, other, seen(other), under.from, under.to, top, height, limit, ink['--violet']);
    line(ctx, lane, seen(lane), picture.from, picture.to, top, height, limit, its);
    ctx.restore();
    ctx.fillStyle = rows.length > 1 ? its : ink['--soft'];
    ctx.textAlign = 'right';
    if (n < 2) {
      ctx.fillText(rounded(limit[1]), LEFT - 6, top + NAME + 10 + 14 * n);
      ctx.fillText(rounded(limit[0]), LEFT - 6, top + height - 2 - 14 * (Math.min(2, rows.length) - 1 - n));
    }
    ctx.textAlign = 'left';
    const unit = lane.unit ? `${lane.name}, ${lane.unit}` : lane.name;
    const name = columns ? `${unit}, mean over ${span(columns)}` : unit;
    ctx.fillStyle = rows.length > 1 ? its : ink['--ink'];
    ctx.fillText(name, begin, top + 14);
    begin += ctx.measureText(name).width + 18;
  });
}

// the cylinder whose compression dead centre is near, at every place of the firing order
function ruler(ctx, top) {
  ctx.textAlign = 'center';
  const { order, cycles, firesBefore } = picture;
  const first = order.indexOf(1);
  for (const [from, to] of cycles) {
    for (let k = 0; k < order.length; k++) {
      const share = (firesBefore / 720 + (k - first) / order.length + 1) % 1;
      const at = x(from + share * (to - from));
      if (at < LEFT || at > LEFT + width()) continue;
      ctx.strokeStyle = ink['--line'];
      ctx.beginPath();
      ctx.moveTo(at, 0);
      ctx.lineTo(at, top);
      ctx.stroke();
      const apart = ((to - from) / order.length / (range[1] - range[0])) * width();
      ctx.fillStyle = ink['--soft'];
      if (apart > 14) ctx.fillText(String(order[k]), at, top + 16);
    }
  }
  ctx.fillStyle = ink['--soft'];
  ctx.textAlign = 'right';
  if (cycles.length) ctx.fillText('cylinder', LEFT - 6, top + 16);
}

// degrees from the dead centre of the first cylinder, as close as they can be read
function degrees(ctx, top) {
  const { cycles, firesBefore } = picture;
  if (!cycles.length) return;
  ctx.fillStyle = ink['--soft'];
  ctx.textAlign = 'right';
  ctx.fillText('degrees', LEFT - 6, top + 16);
  ctx.textAlign = 'center';
  for (const [from, to] of cycles) {
    if (x(to) < LEFT || x(from) > LEFT + wide) continue;
    const step = [10, 30, 90, 180, 360, 720].find(d => x(from + ((to - from) * d) / 720) - x(from) > 40);
    for (let d = 0; step && d < 720; d += step) {
      const at = x(from + (((d + firesBefore) % 720) / 720) * (to - from));
      if (at >= LEFT && at <= LEFT + wide) ctx.fillText(`${d}°`, at, top + 16);
    }
  }
}

function times(ctx, top) {
  const span = range[1] - range[0];
  const rough = span / Math.max(2, width() / 110);
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map(m => m * power).find(s => s >= rough);
  const digits = Math.max(0, -Math.floor(Math.log10(step)));
  ctx.fillStyle = ink['--soft'];
  ctx.textAlign = 'center';
  for (let t = Math.ceil(range[0] / step) * step; t <= range[1]; t += step) {
    const at = x(t);
    if (at < LEFT + width() - 20) ctx.fillText(`${t.toFixed(digits)} s`, at, top + 16);
  }
}

// what each cylinder does in each half turn from its compression dead centre on
const STROKES = ['works', 'pushes out', 'draws in', 'compresses'];

function angle(t) {
  const { cycles, order, firesBefore } = picture;
  const cycle = cycles.find(([from, to]) => t >= from && t < to);
  if (!cycle) return '';
  const degrees = (((t - cycle[0]) / (cycle[1] - cycle[0])) * 720 - firesBefore + 720) % 720;
  const first = order.indexOf(1);
  const does = order
    .map((cylinder, k) => [cylinder, (degrees - (720 * (k - first)) / order.length + 1440) % 720])
    .sort((a, b) => a[0] - b[0])
    .map(([cylinder, since]) => `${cylinder} ${STROKES[Math.floor(since / 180)]}`);
  const strokes = order.length <= 6 ? `; ${does.join(', ')}` : '';
  return `  ${Math.round(degrees) % 720}° after the dead centre of cylinder 1${strokes}`;
}

function at(lane, t) {
  const columns = lane.extents.length / 2;
  const share = (t - picture.from) / (picture.to - picture.from);
  const c = Math.max(0, Math.min(columns - 1, Math.floor(share * columns)));
  if (lane.extents[2 * c] === null) return NaN;
  return (value(lane, lane.extents[2 * c]) + value(lane, lane.extents[2 * c + 1])) / 2;
}

// from the pinned line to the other: how long, how often that is in a second, how far the engine turns
function apart() {
  const t = cursor - pinned;
  const seconds = Math.abs(t) >= 1 ? `${t.toFixed(3)} s` : `${(1000 * t).toFixed(3)} ms`;
  const often = t === 0 ? '' : `   ${rounded(1 / Math.abs(t))} Hz`;
  const cycle = picture.cycles.find(([from, to]) => pinned >= from && pinned < to);
  const turns = cycle ? `   ${Math.round((720 * t) / (cycle[1] - cycle[0]))}°` : '';
  const values = shown().map(
    ({ lane }) => `${lane.name} ${rounded(at(lane, cursor) - at(lane, pinned))} ${lane.unit}`,
  );
  return `from the pinned line ${seconds}${often}${turns}   ${values.join('   ')}`;
}

function tell() {
  if (cursor === null || !picture) return;
  if (pinned !== null) {
    told.textContent = apart();
    return;
  }
  const values = shown().map(({ lane }) => `${lane.name} ${rounded(at(lane, cursor))} ${lane.unit}`);
  told.textContent = `${cursor.toFixed(4)} s${angle(cursor)}   ${values.join('   ')}`;
}

// a second line stays where it was pinned, until it is let go there or by Escape
function pin(t) {
  const near = pinned !== null && Math.abs(x(t) - x(pinned)) < 6;
  pinned = near ? null : t;
  draw();
  tell();
}

// marks stand where somebody set them, with their numbers as the table below has them
function flags(ctx, bottom) {
  ctx.textAlign = 'center';
  picture.marks.forEach((mark, n) => {
    const at = x(mark.seconds);
    if (at < LEFT || at > LEFT + width()) return;
    ctx.strokeStyle = ink['--violet'];
    ctx.beginPath();
    ctx.moveTo(at, NAME + 4);
    ctx.lineTo(at, bottom);
    ctx.stroke();
    ctx.fillStyle = ink['--violet'];
    ctx.fillRect(at - 10, 2, 20, NAME);
    ctx.fillStyle = ink['--sheet'];
    ctx.fillText(String(n + 1), at, NAME - 3);
  });
}

// what happened at the line is written in words
function mark() {
  if (cursor === null) return;
  document.getElementById('mark-at').value = cursor.toFixed(4);
  document.getElementById('mark-words').focus();
}

function upright(ctx, t, bottom, dashes) {
  ctx.strokeStyle = ink['--coral'];
  ctx.setLineDash(dashes);
  ctx.beginPath();
  ctx.moveTo(x(t), 0);
  ctx.lineTo(x(t), bottom);
  ctx.stroke();
  ctx.setLineDash([]);
}

// at most once for each picture that the screen shows
function draw() {
  if (due === 0) due = requestAnimationFrame(paint);
}

function paint() {
  due = 0;
  wide = canvas.clientWidth - LEFT;
  if (!picture) return;
  const style = getComputedStyle(document.documentElement);
  ink = Object.fromEntries(colours.map(name => [name, style.getPropertyValue(name).trim()]));
  const all = stacked();
  const bottom = all.reduce((sum, [{ i }]) => sum + strips(i) + GAP, 0);
  const height = bottom + (picture.cycles.length ? 3 : 1) * RULER;
  const scale = window.devicePixelRatio || 1;
  const ctx = canvas.getContext('2d');
  const size = [Math.round(canvas.clientWidth * scale), Math.round(height * scale)];
  if (canvas.width !== size[0] || canvas.height !== size[1]) {
    canvas.style.height = `${height}px`;
    [canvas.width, canvas.height] = size;
  }
  ctx.setTransform(scale, 0, 0, scale, 0, 0);
  ctx.clearRect(0, 0, canvas.clientWidth, height);
  ctx.font = '13px "Atkinson Hyperlegible", sans-serif';
  let top = 0;
  for (const rows of all) {
    strip(ctx, rows, top);
    top += strips(rows[0].i) + GAP;
  }
  ruler(ctx, bottom);
  degrees(ctx, bottom + RULER - 2);
  times(ctx, height - RULER - 2);
  flags(ctx, bottom);
  if (pinned !== null) upright(ctx, pinned, bottom, [5, 4]);
  if (cursor !== null) upright(ctx, cursor, bottom, []);
  if (page.dataset.ready) return;
  // pictures of it are ready from here on
  page.dataset.ready = 'yes';
  performance.mark('lanes-painted');
}

function show(from, to) {
  const span = Math.max(picture.length / 1e6, Math.min(length, to - from));
  const begin = Math.max(0, Math.min(length - span, from));
  range = [begin, begin + span];
  draw();
  clearTimeout(waiting);
  waiting = setTimeout(() => fetchAll(...range), 120);
}

function zoom(factor, about) {
  const at = about ?? (range[0] + range[1]) / 2;
  show(at - (at - range[0]) * factor, at + (range[1] - at) * factor);
}

function shift(share) {
  const by = share * (range[1] - range[0]);
  show(range[0] + by, range[1] + by);
}

canvas.addEventListener(
  'wheel',
  event => {
    event.preventDefault();
    zoom(event.deltaY > 0 ? 1.25 : 0.8, time(event.offsetX));
  },
  { passive: false },
);

let held = null;
// where each finger is; two of them spread or narrow what lies between
const fingers = new Map();
let spread = null;

function pinched() {
  const [a, b] = [...fingers.values()];
  const apart = Math.max(20, Math.abs(a - b));
  const scale = ((spread.range[1] - spread.range[0]) * spread.apart) / apart;
  const share = ((a + b) / 2 - LEFT) / wide;
  show(spread.at - share * scale, spread.at + (1 - share) * scale);
}

canvas.addEventListener('pointerdown', event => {
  fingers.set(event.pointerId, event.offsetX);
  held = fingers.size === 1 ? { px: event.offsetX, range } : null;
  if (fingers.size === 2) {
    const [a, b] = [...fingers.values()];
    spread = { range, at: time((a + b) / 2), apart: Math.max(20, Math.abs(a - b)) };
  }
  canvas.setPointerCapture(event.pointerId);
});
canvas.addEventListener('pointercancel', event => fingers.delete(event.pointerId));
canvas.addEventListener('pointerup', event => {
  fingers.delete(event.pointerId);
  if (held && Math.abs(event.offsetX - held.px) <= 3) pin(time(event.offsetX));
  held = null;
});
canvas.addEventListener('pointermove', event => {
  if (fingers.has(event.pointerId)) fingers.set(event.pointerId, event.offsetX);
  if (fingers.size === 2) {
    pinched();
    return;
  }
  if (held && Math.abs(event.offsetX - held.px) > 3) {
    const by = ((held.px - event.offsetX) / width()) * (held.range[1] - held.range[0]);
    show(held.range[0] + by, held.range[1] + by);
  }
  cursor = Math.max(range[0], Math.min(range[1], time(event.offsetX)));
  draw();
  tell();
});
canvas.addEventListener('keydown', event => {
  // the line is led by the keys as well, and is in the middle until it was
  const led = share => {
    const from = cursor ?? (range[0] + range[1]) / 2;
    cursor = Math.max(range[0], Math.min(range[1], from + share * (range[1] - range[0])));
    draw();
    tell();
  };
  const does = {
    ',': () => led(-0.01),
    '.': () => led(0.01),
    m: mark,
    p: () => cursor !== null && pin(cursor),
    Escape: () => pinned !== null && pin(pinned),
    ArrowLeft: () => shift(-0.1),
    ArrowRight: () => shift(0.1),
    '+': () => zoom(0.7),
    '-': () => zoom(1.4),
    Home: () => show(0, length),
  }[event.key];
  if (!does) return;
  event.preventDefault();
  does();
});

document.getElementById('all').addEventListener('click', () => show(0, length));
document.getElementById('closer').addEventListener('click', () => zoom(0.5));
document.getElementById('wider').addEventListener('click', () => zoom(2));
window.addEventListener('resize', () => fetchAll(...range));

function box(name, on, change) {
  const its = document.createElement('input');
  its.type = 'checkbox';
  its.className = 'form-check-input';
  its.checked = on;
  its.addEventListener('change', () => {
    change(its.checked);
    draw();
  });
  const label = document.createElement('label');
  label.className = 'fw-normal';
  label.append(its, ` ${name}`);
  return label;
}

const within = (set, i) => on => (on ? set.add(i) : set.delete(i));

function mover(name, sign, i, by) {
  const button = document.createElement('button');
  button.type = 'button';
  button.className = 'btn btn-plain';
  button.textContent = sign;
  button.setAttribute('aria-label', `${name}: ${by < 0 ? 'further up' : 'further down'}`);
  button.addEventListener('click', () => {
    const from = order.indexOf(i);
    const to = Math.max(0, Math.min(order.length - 1, from + by));
    order.splice(to, 0, order.splice(from, 1)[0]);
    rows();
    draw();
    document.querySelector(`#switches [aria-label="${button.getAttribute('aria-label')}"]`)?.focus();
  });
  return button;
}

function chooser(label, choices, map, i) {
  const select = document.createElement('select');
  select.className = 'form-select w-auto';
  select.setAttribute('aria-label', label);
  const none = choices[0][0];
  for (const [value, words] of choices) {
    select.add(new Option(words, value, false, (map.get(i) ?? none) === value));
  }
  select.addEventListener('change', () => {
    const value = Number(select.value);
    if (value === none) map.delete(i);
    else map.set(i, value);
    draw();
  });
  return select;
}

const SMOOTHED = [[0, 'as it is'], [5, 'smoothed'], [25, 'smoothed more']];
const LARGER = [[1, 'all of its span'], [2, '2 times'], [5, '5 times'], [10, '10 times'], [50, '50 times']];
const RAISED = [
  [0, 'in the middle'],
  [1, 'raised'],
  [0.5, 'raised a little'],
  [-0.5, 'lowered a little'],
  [-1, 'lowered'],
];

const switches = document.getElementById('switches');

function rows() {
  switches.replaceChildren(
    ...order.map(i => {
      const { name } = picture.lanes[i];
      const row = document.createElement('div');
      row.className = 'row-line';
      row.append(
        box(name, !hidden.has(i), on => within(hidden, i)(!on)),
        box('turned over', turned.has(i), within(turned, i)),
        box('taller', tall.has(i), within(tall, i)),
        box('over the one above', over.has(i), within(over, i)),
        chooser(`${name}: smoothed`, SMOOTHED, smooth, i),
        chooser(`${name}: how large`, LARGER, larger, i),
        chooser(`${name}: how high`, RAISED, raised, i),
        mover(name, '↑', i, -1),
        mover(name, '↓', i, 1),
      );
      return row;
    }),
  );
}

await fetchAll(0, -1);
if (page.dataset.going) follow();
