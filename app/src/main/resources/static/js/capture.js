// Lanes of a capture: each has a strip of its own, all share the time. What is shown is fetched in
// its own detail: least and most of each column, so that no peak is lost however far one looks.

const page = document.getElementById('capture');
const canvas = document.getElementById('drawing');
const told = document.getElementById('cursor');
const STRIP = 96;
const NAME = 18;
const RULER = 26;
const GAP = 8;
const LEFT = 64;
const colour = name => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
const hidden = new Set();
const turned = new Set();
const tall = new Set();
const smooth = new Map();
let order = [];

let picture = null;
let under = null;
let range = [0, 0];
let length = 0;
let cursor = null;
let pinned = null;
let asked = 0;
let waiting = 0;

const width = () => canvas.clientWidth - LEFT;
const shown = () => order.filter(i => !hidden.has(i)).map(i => ({ lane: picture.lanes[i], i }));
const strips = i => (tall.has(i) ? 2 * STRIP : STRIP);

async function fetched(address, from, to) {
  const columns = Math.max(50, Math.round(width()));
  const join = address.includes('?') ? '&' : '?';
  const answer = await fetch(`${address}${join}from=${from}&to=${to}&columns=${columns}`);
  return answer.ok ? answer.json() : null;
}

async function fetchAll(from, to) {
  const mine = ++asked;
  const got = await fetched(page.dataset.picture, from, to);
  const other = page.dataset.beside ? await fetched(page.dataset.beside, from, to) : null;
  if (mine !== asked || !got) return;
  picture = got;
  under = other;
  length = got.length;
  if (range[1] === 0) range = [got.from, got.to];
  if (order.length === 0) {
    order = picture.lanes.map((lane, i) => i);
    picture.lanes.forEach((lane, i) => lane.aside && hidden.add(i));
  }
  draw();
}

const x = t => LEFT + ((t - range[0]) / (range[1] - range[0])) * width();
const time = px => range[0] + ((px - LEFT) / width()) * (range[1] - range[0]);
const value = (lane, step) => step * lane.scale + lane.offset;

// a strip is as tall as what is seen of its lane, and of the one under it
function limits(lane, other, i) {
  const seen = [lane, other].filter(Boolean).flatMap(l => l.extents.map(s => value(l, s)));
  const low = seen.reduce((a, b) => Math.min(a, b), Infinity);
  const high = seen.reduce((a, b) => Math.max(a, b), -Infinity);
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
    const near = middle.slice(Math.max(0, c - reach), c + reach + 1);
    const mean = near.reduce((sum, v) => sum + v, 0) / near.length;
    return [mean, mean];
  });
}

function line(ctx, lane, extents, from, to, top, height, bounds, ink) {
  const columns = extents.length / 2;
  const y = v => top + height - ((v - bounds[0]) / (bounds[1] - bounds[0])) * (height - NAME);
  ctx.strokeStyle = ink;
  ctx.lineWidth = 1.3;
  ctx.beginPath();
  for (let c = 0; c < columns; c++) {
    const px = x(from + ((c + 0.5) * (to - from)) / columns);
    if (px < LEFT - 2 || px > LEFT + width() + 2) continue;
    ctx.lineTo(px, y(value(lane, extents[2 * c])));
    ctx.lineTo(px, y(value(lane, extents[2 * c + 1])));
  }
  ctx.stroke();
}

// what smoothing does is said beside the lane's name
function span(columns) {
  const all = picture.lanes[0].extents.length / 2;
  const seconds = (columns * (picture.to - picture.from)) / all;
  return seconds >= 1 ? `${seconds.toFixed(1)} s` : `${(1000 * seconds).toPrecision(2)} ms`;
}

const rounded = v => (Math.abs(v) >= 100 ? v.toFixed(0) : Math.abs(v) >= 10 ? v.toFixed(1) : v.toFixed(2));

function strip(ctx, { lane, i }, top) {
  const other = under?.lanes.find(l => l.name === lane.name);
  const bounds = limits(lane, other, i);
  const height = strips(i);
  const columns = smooth.get(i);
  const seen = l => (columns ? smoothed(l, columns) : l.extents);
  ctx.fillStyle = colour('--sheet');
  ctx.fillRect(LEFT, top, width(), height);
  ctx.save();
  ctx.beginPath();
  ctx.rect(LEFT, top, width(), height);
  ctx.clip();
  if (other) line(ctx, other, seen(other), under.from, under.to, top, height, bounds, colour('--violet'));
  line(ctx, lane, seen(lane), picture.from, picture.to, top, height, bounds, colour('--teal'));
  ctx.restore();
  ctx.fillStyle = colour('--soft');
  ctx.textAlign = 'right';
  ctx.fillText(rounded(bounds[1]), LEFT - 6, top + NAME + 10);
  ctx.fillText(rounded(bounds[0]), LEFT - 6, top + height - 2);
  ctx.textAlign = 'left';
  const name = lane.unit ? `${lane.name}, ${lane.unit}` : lane.name;
  ctx.fillStyle = colour('--ink');
  ctx.fillText(columns ? `${name}, mean over ${span(columns)}` : name, LEFT + 6, top + 14);
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
      ctx.strokeStyle = colour('--line');
      ctx.beginPath();
      ctx.moveTo(at, 0);
      ctx.lineTo(at, top);
      ctx.stroke();
      const apart = ((to - from) / order.length / (range[1] - range[0])) * width();
      ctx.fillStyle = colour('--soft');
      if (apart > 14) ctx.fillText(String(order[k]), at, top + 16);
    }
  }
  ctx.fillStyle = colour('--soft');
  ctx.textAlign = 'right';
  if (cycles.length) ctx.fillText('cylinder', LEFT - 6, top + 16);
}

function times(ctx, top) {
  const span = range[1] - range[0];
  const rough = span / Math.max(2, width() / 110);
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map(m => m * power).find(s => s >= rough);
  const digits = Math.max(0, -Math.floor(Math.log10(step)));
  ctx.fillStyle = colour('--soft');
  ctx.textAlign = 'center';
  for (let t = Math.ceil(range[0] / step) * step; t <= range[1]; t += step) {
    const at = x(t);
    if (at < LEFT + width() - 20) ctx.fillText(`${t.toFixed(digits)} s`, at, top + 16);
  }
}

function angle(t) {
  const cycle = picture.cycles.find(([from, to]) => t >= from && t < to);
  if (!cycle) return '';
  const degrees = ((t - cycle[0]) / (cycle[1] - cycle[0])) * 720 - picture.firesBefore;
  return `  ${Math.round((degrees + 720) % 720)}° after the dead centre of cylinder 1`;
}

function at(lane, t) {
  const columns = lane.extents.length / 2;
  const share = (t - picture.from) / (picture.to - picture.from);
  const c = Math.max(0, Math.min(columns - 1, Math.floor(share * columns)));
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
    ctx.strokeStyle = colour('--violet');
    ctx.beginPath();
    ctx.moveTo(at, NAME + 4);
    ctx.lineTo(at, bottom);
    ctx.stroke();
    ctx.fillStyle = colour('--violet');
    ctx.fillRect(at - 10, 2, 20, NAME);
    ctx.fillStyle = colour('--sheet');
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
  ctx.strokeStyle = colour('--coral');
  ctx.setLineDash(dashes);
  ctx.beginPath();
  ctx.moveTo(x(t), 0);
  ctx.lineTo(x(t), bottom);
  ctx.stroke();
  ctx.setLineDash([]);
}

function draw() {
  if (!picture) return;
  const rows = shown();
  const bottom = rows.reduce((sum, { i }) => sum + strips(i) + GAP, 0);
  const height = bottom + 2 * RULER;
  const scale = window.devicePixelRatio || 1;
  canvas.style.height = `${height}px`;
  canvas.width = canvas.clientWidth * scale;
  canvas.height = height * scale;
  const ctx = canvas.getContext('2d');
  ctx.scale(scale, scale);
  ctx.font = '13px "Atkinson Hyperlegible", sans-serif';
  let top = 0;
  for (const row of rows) {
    strip(ctx, row, top);
    top += strips(row.i) + GAP;
  }
  ruler(ctx, bottom);
  times(ctx, bottom + RULER - 2);
  flags(ctx, bottom);
  if (pinned !== null) upright(ctx, pinned, bottom, [5, 4]);
  if (cursor !== null) upright(ctx, cursor, bottom, []);
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
canvas.addEventListener('pointerdown', event => {
  held = { px: event.offsetX, range };
  canvas.setPointerCapture(event.pointerId);
});
canvas.addEventListener('pointerup', event => {
  if (held && Math.abs(event.offsetX - held.px) <= 3) pin(time(event.offsetX));
  held = null;
});
canvas.addEventListener('pointermove', event => {
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

function smoother(name, i) {
  const select = document.createElement('select');
  select.className = 'form-select w-auto';
  select.setAttribute('aria-label', `${name}: smoothed`);
  for (const [columns, words] of [[0, 'as it is'], [5, 'smoothed'], [25, 'smoothed more']]) {
    select.add(new Option(words, columns, false, (smooth.get(i) ?? 0) === columns));
  }
  select.addEventListener('change', () => {
    if (select.value === '0') smooth.delete(i);
    else smooth.set(i, Number(select.value));
    draw();
  });
  return select;
}

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
        smoother(name, i),
        mover(name, '↑', i, -1),
        mover(name, '↓', i, 1),
      );
      return row;
    }),
  );
}

await fetchAll(0, -1);
if (picture) rows();
// pictures of it are ready from here on
page.dataset.ready = 'yes';
