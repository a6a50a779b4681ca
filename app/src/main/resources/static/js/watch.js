// Live values: numbers at once, chart several times a second, over as long a window as was chosen.
import { Lanes } from './lanes.js';
import { readouts } from './readouts.js';

const page = document.getElementById('watch');
const rows = [...document.querySelectorAll('#values tr[data-value]')];
const values = rows.map(row => ({
  id: row.dataset.value,
  name: row.dataset.name,
  unit: row.dataset.unit,
  state: row.dataset.state === 'true',
  words: Object.fromEntries(
    (row.dataset.words || '')
      .split('\n')
      .filter(Boolean)
      .map(l => [l.slice(0, l.indexOf(' ')), l.slice(l.indexOf(' ') + 1)]),
  ),
  digits: Number(row.dataset.digits),
  row,
  t: [],
  y: [],
}));
const byId = new Map(values.map(v => [v.id, v]));
const places = readouts();
const root = document.getElementById('lanes');
const KEPT = 600;
const GAP = 2;
let span = 60;
let paused = false;
let zero = null;
let newest = 0;
const AGES = 1000;
let ages = 0;

const lanes =
  root && values.length
    ? new Lanes(root, values, {
        all: () => goOn(),
        moved: () => {
          if (!paused) {
            pauseNow(true);
            lanes.setData();
            lanes.show(...lanes.range);
          }
        },
      })
    : null;

const pause = document.getElementById('pause');
function pauseNow(now) {
  paused = now;
  pause.setAttribute('aria-pressed', paused);
  pause.textContent = paused ? 'Let the chart go on' : 'Pause the chart';
}
function goOn() {
  pauseNow(false);
}
pause?.addEventListener('click', () => pauseNow(!paused));
const window_ = document.getElementById('span');
window_?.addEventListener('change', () => {
  span = Number(window_.value);
  goOn();
});

const wanted = [...new Set([...values.map(v => v.id), ...places.ids])];
if (wanted.length) {
  const source = new EventSource(
    page.dataset.stream + '?' + wanted.map(v => 'v=' + encodeURIComponent(v)).join('&'),
  );
  addEventListener('pagehide', () => source.close());
  let missed = '';
  source.addEventListener('lost', event => {
    missed = `This page did not keep up; ${event.data} messages with readings were left out.`;
    setTimeout(() => (missed = ''), 10000);
  });
  source.addEventListener('values', event => {
    const { points, troubles } = JSON.parse(event.data);
    if (missed) troubles.push(missed);
    const trouble = document.getElementById('troubles');
    trouble.hidden = troubles.length === 0;
    if (troubles.length) trouble.textContent = troubles.join(' · ');
    let last = 0;
    for (const p of points) {
      zero ??= p.t;
      last = Math.max(last, p.t);
      newest = Math.max(newest, p.t - zero);
      places.set(p.id, p.text, p.verdict);
      const value = byId.get(p.id);
      if (!value) continue;
      const t = p.t - zero;
      // where nothing came for a while nothing is drawn
      if (value.t.length && t - value.t[value.t.length - 1] > GAP) {
        value.t.push((t + value.t[value.t.length - 1]) / 2);
        value.y.push(null);
      }
      value.t.push(t);
      value.y.push(Number.isFinite(p.v) ? p.v : null);
      value.text = p.text;
      value.verdict = p.verdict;
    }
    for (const value of values) {
      if (value.t.length > 256 && value.t[128] < newest - KEPT) {
        value.t.splice(0, 128);
        value.y.splice(0, 128);
      }
      if (value.text === undefined) continue;
      value.row.querySelector('[data-now]').textContent = value.text;
      const tag = value.row.querySelector('[data-verdict]');
      tag.hidden = !value.verdict;
      tag.textContent = value.verdict === 'out' ? 'out of range' : 'in range';
      tag.className = 'tag ' + (value.verdict === 'out' ? 'fails' : 'holds');
    }
    // how old a reading is when it is painted (W3C User Timing); the browser keeps what is not cleared
    if (last)
      requestAnimationFrame(() =>
        setTimeout(() => {
          if (ages++ % AGES === 0) performance.clearMeasures('reading-to-paint');
          const end = performance.now();
          performance.measure('reading-to-paint', { start: end - Math.max(0, Date.now() - 1000 * last), end });
        }),
      );
  });
  source.onerror = () => {
    const trouble = document.getElementById('troubles');
    trouble.hidden = false;
    trouble.textContent = 'The page lost the program; it tries again.';
  };
}

// four times a second, or as often as leaves a slow machine three quarters of its time for other things
function refresh() {
  const began = performance.now();
  if (lanes && !paused) {
    const from = Math.max(0, newest - span);
    lanes.setData(from, Math.max(10, newest));
    lanes.show(from, Math.max(10, newest));
  }
  for (const value of values) {
    let n = 0;
    for (let i = value.t.length - 1; i >= 0 && value.t[i] > newest - 5; i--) n++;
    value.row.querySelector('[data-rate]').textContent = n
      ? (n / Math.min(5, Math.max(1, newest))).toFixed(0)
      : '';
  }
  requestAnimationFrame(() =>
    setTimeout(() => setTimeout(refresh, Math.max(250, 3 * (performance.now() - began)))),
  );
}
refresh();

const find = document.getElementById('find');
find.addEventListener('input', () => {
  const word = find.value.trim().toLowerCase();
  for (const form of document.querySelectorAll('#found form')) {
    form.hidden = !word || !word.split(/\s+/).every(w => form.dataset.words.includes(w));
  }
});

document.getElementById('work').addEventListener('click', async event => {
  const button = event.target.closest('#mark');
  if (!button) return;
  const csrf = document.querySelector('meta[name=csrf]');
  const answer = await fetch(page.dataset.mark, {
    method: 'POST',
    headers: { [csrf.dataset.header]: csrf.content },
  });
  button.textContent = answer.ok ? 'Marked. Mark again' : 'Not marked: ' + answer.status;
});
