// A recorded take as stacked lanes; zooming one lane zooms all.
import {align, groups, lane} from '/js/lanes.js';

const page = document.getElementById('take');
const root = document.getElementById('lanes');
const {series, marks} = await (await fetch(page.dataset.samples)).json();
const values = series.map(s => ({...s.value, t: s.t, y: s.y}));
const charts = [];
let inStep = false;

function follow(source) {
  if (inStep) return;
  inStep = true;
  const {min, max} = source.scales.x;
  for (const chart of charts) if (chart !== source) chart.setScale('x', {min, max});
  inStep = false;
}

function drawMarks(chart) {
  const {ctx, bbox} = chart;
  ctx.save();
  ctx.strokeStyle = getComputedStyle(document.documentElement).getPropertyValue('--coral').trim();
  for (const mark of marks) {
    const x = chart.valToPos(mark.seconds, 'x', true);
    if (x < bbox.left || x > bbox.left + bbox.width) continue;
    ctx.beginPath();
    ctx.moveTo(x, bbox.top);
    ctx.lineTo(x, bbox.top + bbox.height);
    ctx.stroke();
  }
  ctx.restore();
}

for (const group of groups(values)) {
  const chart = lane(root, group, {height: 150, hooks: {draw: [drawMarks]}});
  chart.setData(align(group.list));
  charts.push(chart);
}
for (const chart of charts) (chart.hooks.setScale ??= []).push((u, key) => { if (key === 'x') follow(u); });
document.documentElement.dataset.drawn = 'yes';
