// Stacked lanes on one time axis, one lane a unit, with a shared cursor.
import uPlot from '/webjars/uplot/1.6.30/dist/uPlot.esm.js';

const STROKES = [[], [7, 5], [2, 3], [10, 3, 2, 3]];

export function groups(values) {
  const byUnit = new Map();
  for (const value of values) {
    const key = value.state ? value.name : value.unit;
    if (!byUnit.has(key)) byUnit.set(key, []);
    byUnit.get(key).push(value);
  }
  return [...byUnit.entries()].map(([unit, list]) => ({unit, list}));
}

export function lane(root, group, options = {}) {
  const style = getComputedStyle(document.documentElement);
  const colour = name => style.getPropertyValue(name).trim();
  const holder = document.createElement('div');
  holder.className = 'lane';
  const title = document.createElement('h3');
  title.textContent = group.list.map(v => v.name).join(' · ') + (group.list[0].state ? '' : ` (${group.unit})`);
  holder.append(title);
  root.append(holder);
  const inks = [colour('--ink'), colour('--teal'), colour('--violet'), colour('--coral')];
  const axis = {stroke: colour('--ink'), grid: {stroke: colour('--line'), width: 1}, ticks: {stroke: colour('--line')}, font: '12px "Atkinson Hyperlegible"'};
  const chart = new uPlot({
    width: Math.max(260, root.clientWidth - 14), height: options.height ?? 120, ms: 1e-3,
    cursor: {sync: {key: 'lanes'}, drag: {x: true, y: false}},
    // noise of a quiet value must not fill the lane: never less than 4 % of the value, or 4 of its unit
    scales: {x: {time: false}, y: {range: (u, min, max) => { if (min == null) return [0, 1]; const room = Math.max(4, 0.04 * Math.abs(max)); const spare = Math.max(0, room - (max - min)) / 2 + 0.06 * (max - min); return [min - spare, max + spare]; }}},
    axes: [{...axis, size: 34}, {...axis, size: 54}],
    series: [{label: 'seconds', value: (u, v) => v == null ? '–' : v.toFixed(1)},
      ...group.list.map((v, i) => ({label: v.name, stroke: inks[i % inks.length], width: 2, dash: STROKES[i % STROKES.length], spanGaps: true, points: {show: false}, value: (u, y) => y == null ? '–' : y.toFixed(v.digits)}))],
    hooks: options.hooks ?? {},
  }, [[], ...group.list.map(() => [])], holder);
  new ResizeObserver(() => chart.setSize({width: Math.max(260, root.clientWidth - 14), height: options.height ?? 120})).observe(root);
  return chart;
}

// Several columns with times of their own, put on one rising time axis; a gap stays a gap.
export function align(columns) {
  const times = [...new Set(columns.flatMap(c => c.t))].sort((a, b) => a - b);
  const index = new Map(times.map((t, i) => [t, i]));
  return [times, ...columns.map(c => {
    const row = new Array(times.length).fill(undefined);
    c.t.forEach((t, i) => { row[index.get(t)] = c.y[i]; });
    return row;
  })];
}
