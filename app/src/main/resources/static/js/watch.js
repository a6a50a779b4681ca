// Live values: numbers at once, chart four times a second, over the last minute.
import {align, groups, lane} from '/js/lanes.js';

const page = document.getElementById('watch');
const rows = [...document.querySelectorAll('#values tr[data-value]')];
const values = rows.map(row => ({id: row.dataset.value, name: row.dataset.name, unit: row.dataset.unit, state: row.dataset.state === 'true', digits: Number(row.dataset.digits), row, t: [], y: []}));
const byId = new Map(values.map(v => [v.id, v]));
const root = document.getElementById('lanes');
const lanes = groups(values.filter(v => !v.state)).map(group => ({group, chart: lane(root, group)}));
const WINDOW = 60;
let paused = false;
let zero = null;
let newest = 0;

const pause = document.getElementById('pause');
pause.addEventListener('click', () => {
  paused = !paused;
  pause.setAttribute('aria-pressed', paused);
  pause.textContent = paused ? 'Let the chart go on' : 'Pause the chart';
});

if (values.length) {
  const source = new EventSource(page.dataset.stream + '?' + values.map(v => 'v=' + encodeURIComponent(v.id)).join('&'));
  addEventListener('pagehide', () => source.close());
  source.addEventListener('values', event => {
    const {points, troubles} = JSON.parse(event.data);
    const trouble = document.getElementById('troubles');
    trouble.hidden = troubles.length === 0;
    if (troubles.length) trouble.textContent = troubles.join(' · ');
    for (const p of points) {
      zero ??= p.t;
      newest = Math.max(newest, p.t - zero);
      const value = byId.get(p.id);
      value.t.push(p.t - zero);
      value.y.push(p.v);
      value.text = p.text;
      value.verdict = p.verdict;
    }
    for (const value of values) {
      while (value.t.length && value.t[0] < newest - WINDOW) { value.t.shift(); value.y.shift(); }
      if (value.text === undefined) continue;
      value.row.querySelector('[data-now]').textContent = value.text;
      const tag = value.row.querySelector('[data-verdict]');
      tag.hidden = !value.verdict;
      tag.textContent = value.verdict === 'out' ? 'out of range' : 'in range';
      tag.className = 'tag ' + (value.verdict === 'out' ? 'fails' : 'holds');
    }
  });
  source.onerror = () => {
    const trouble = document.getElementById('troubles');
    trouble.hidden = false;
    trouble.textContent = 'The page lost the program; it tries again.';
  };
}

setInterval(() => {
  if (!paused) {
    for (const {group, chart} of lanes) {
      chart.setData(align(group.list), false);
      chart.setScale('x', {min: Math.max(0, newest - WINDOW), max: Math.max(10, newest)});
    }
  }
  for (const value of values) {
    const n = value.t.filter(t => t > newest - 5).length;
    value.row.querySelector('[data-rate]').textContent = n ? (n / Math.min(5, Math.max(1, newest))).toFixed(0) : '';
  }
}, 250);

const find = document.getElementById('find');
find.addEventListener('input', () => {
  const word = find.value.trim().toLowerCase();
  for (const form of document.querySelectorAll('#found form')) {
    form.hidden = !word || !word.split(/\s+/).every(w => form.dataset.words.includes(w));
  }
});

document.getElementById('mark')?.addEventListener('click', async event => {
  const button = event.currentTarget;
  const csrf = document.querySelector('meta[name=csrf]');
  const answer = await fetch(page.dataset.mark, {method: 'POST', headers: {[csrf.dataset.header]: csrf.content}});
  button.textContent = answer.ok ? 'Marked. Mark again' : 'Not marked: ' + answer.status;
});
