// A recorded take: lanes that fetch what they show, numbers at the cursor, playback.
import { Lanes, lower } from './lanes.js';
import { readouts, written } from './readouts.js';

const page = document.getElementById('take');
const root = document.getElementById('lanes');
const places = readouts();
const slider = document.getElementById('at');
const atText = document.getElementById('at-text');
const colour = name => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
let marks = [];
let lanes = null;
let values = [];
let length = 0;
let asked = 0;
let waiting = 0;
let seenOf = [0, 0];

const fetched = async (from, to) => (await fetch(`${page.dataset.samples}?from=${from}&to=${to}`)).json();

function drawMarks(chart) {
  const { ctx, bbox } = chart;
  const line = (seconds, ink) => {
    const x = chart.valToPos(seconds, 'x', true);
    if (x < bbox.left || x > bbox.left + bbox.width) return;
    ctx.strokeStyle = ink;
    ctx.beginPath();
    ctx.moveTo(x, bbox.top);
    ctx.lineTo(x, bbox.top + bbox.height);
    ctx.stroke();
  };
  ctx.save();
  ctx.setLineDash([]);
  for (const mark of marks) line(mark.seconds, colour('--coral'));
  ctx.restore();
}

function put(series) {
  const byId = new Map(series.map(s => [s.value.id, s]));
  for (const value of values) {
    const its = byId.get(value.id);
    value.t = its?.t ?? [];
    value.y = its?.y ?? [];
    value.seen = its?.seen;
  }
}

// of all samples, which the picture does not have; nothing while it moves
function seen(value, range) {
  return range[0] === seenOf[0] && range[1] === seenOf[1] ? value.seen : undefined;
}

// what is shown is fetched in its own detail a moment after one stopped moving
function moved(min, max) {
  clearTimeout(waiting);
  waiting = setTimeout(async () => {
    const mine = ++asked;
    const { series } = await fetched(Math.max(0, min), Math.min(length, max));
    if (mine !== asked) return;
    put(series);
    seenOf = [min, max];
    lanes?.setData();
    lanes?.show(...lanes.range);
  }, 150);
}

function showAt(t) {
  atText.textContent = `${t.toFixed(1)} s`;
  for (const value of values) {
    const i = lower(value.t, t + 1e-6) - 1;
    places.set(value.id, i >= 0 ? written(value, value.y[i]) : '–');
  }
}

const first = await fetched(0, -1);
length = first.length;
marks = first.marks;
values = first.series.map(s => ({ ...s.value, t: s.t, y: s.y, seen: s.seen }));
if (root && values.length) {
  lanes = new Lanes(root, values, {
    height: 150,
    draw: drawMarks,
    moved,
    seen,
    all: () => {
      lanes.show(0, length);
      moved(0, length);
    },
  });
  lanes.setData();
  seenOf = [0, Math.max(0.5, length)];
  lanes.show(...seenOf);
}
slider.max = length;
slider.addEventListener('input', () => showAt(Number(slider.value)));
showAt(0);

const play = document.getElementById('play');
let playing = 0;
play.addEventListener('click', () => {
  if (playing) {
    cancelAnimationFrame(playing);
    playing = 0;
    play.textContent = 'Play';
    return;
  }
  play.textContent = 'Halt';
  let before = performance.now();
  let t = Number(slider.value) >= length ? 0 : Number(slider.value);
  const step = now => {
    t += ((now - before) / 1000) * Number(document.getElementById('speed').value);
    before = now;
    slider.value = Math.min(t, length);
    showAt(Math.min(t, length));
    if (t < length) playing = requestAnimationFrame(step);
    else {
      playing = 0;
      play.textContent = 'Play';
    }
  };
  playing = requestAnimationFrame(step);
});
document.documentElement.dataset.drawn = 'yes';
