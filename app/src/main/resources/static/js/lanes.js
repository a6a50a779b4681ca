// Stacked lanes on one time axis, one lane a unit, with a shared cursor and what the visible part comes to.
import uPlot from '/webjars/uplot/1.6.30/dist/uPlot.esm.js';

const STROKES = [[], [7, 5], [2, 3], [10, 3, 2, 3]];
const LEAST_SPAN = 0.5;

export function groups(values) {
  const byUnit = new Map();
  for (const value of values) {
    const key = value.state ? value.name : value.unit;
    if (!byUnit.has(key)) byUnit.set(key, []);
    const lists = byUnit.get(key);
    // more than four lines in one lane are no longer told apart,
    // and what is read to a hundredth is flat beside what is read to the whole
    let list = lists.find(l => l.length < 4 && Math.abs(l[0].digits - value.digits) < 2);
    if (!list) lists.push((list = []));
    list.push(value);
  }
  return [...byUnit.entries()].flatMap(([unit, lists]) => lists.map(list => ({ unit, list })));
}

// Several columns with times of their own on one rising axis: undefined where one was not sampled, null where a gap is.
// Each is in order already, so they are merged in one walk; a part of them when a span is given.
export function align(columns, from = -Infinity, to = Infinity) {
  const at = columns.map(c => Math.max(0, lower(c.t, from) - 1));
  const times = [];
  const rows = columns.map(() => []);
  for (;;) {
    let t = Infinity;
    for (let c = 0; c < columns.length; c++)
      if (at[c] < columns[c].t.length && columns[c].t[at[c]] < t) t = columns[c].t[at[c]];
    if (t === Infinity || (times.length && times[times.length - 1] > to)) break;
    times.push(t);
    for (let c = 0; c < columns.length; c++) {
      if (columns[c].t[at[c]] === t) rows[c].push(columns[c].y[at[c]++]);
      else rows[c].push(undefined);
    }
  }
  return [times, ...rows];
}

function told(v) {
  const size = Math.abs(v);
  return v.toFixed(size >= 100 ? 0 : size >= 10 ? 1 : 2);
}

function lane(root, group, options) {
  const style = getComputedStyle(document.documentElement);
  const colour = name => style.getPropertyValue(name).trim();
  const holder = document.createElement('div');
  holder.className = 'lane';
  const title = document.createElement('h3');
  title.textContent =
    group.list.map(v => v.name).join(' · ') + (group.list[0].state || !group.unit ? '' : ` (${group.unit})`);
  const stats = document.createElement('p');
  stats.className = 'stats';
  holder.append(title, stats);
  root.append(holder);
  const inks = [colour('--ink'), colour('--teal'), colour('--violet'), colour('--coral')];
  const axis = {
    stroke: colour('--ink'),
    grid: { stroke: colour('--line'), width: 1 },
    ticks: { stroke: colour('--line') },
    font: '12px "Atkinson Hyperlegible"',
  };
  const words = group.list[0].state ? group.list[0].words : null;
  const chart = new uPlot(
    {
      width: Math.max(260, root.clientWidth - 14),
      height: options.height ?? 120,
      ms: 1e-3,
      cursor: { sync: { key: 'lanes' }, drag: { x: true, y: false, setScale: false } },
      // noise of a quiet value must not fill the lane: never less than 4 % of the value, or 4 of its unit
      scales: {
        x: { time: false },
        y: {
          range: (u, min, max) => {
            if (words) return [-0.3, Math.max(1, ...Object.keys(words).map(Number)) + 0.3];
            if (min == null) return [0, 1];
            const room = Math.max(options.room ?? 4, 0.04 * Math.abs(max));
            const spare = Math.max(0, room - (max - min)) / 2 + 0.06 * (max - min);
            return [min - spare, max + spare];
          },
        },
      },
      axes: [
        { ...axis, size: 34 },
        {
          ...axis,
          size: words ? 90 : 54,
          ...(words
            ? { splits: () => Object.keys(words).map(Number), values: (u, at) => at.map(v => words[v]) }
            : {}),
        },
      ],
      series: [
        { label: 'seconds', value: (u, v) => (v == null ? '–' : v.toFixed(1)) },
        ...group.list.map((v, i) => ({
          label: v.name,
          stroke: inks[i % inks.length],
          width: 2,
          dash: STROKES[i % STROKES.length],
          spanGaps: false,
          points: { show: false },
          paths: words ? uPlot.paths.stepped({ align: 1 }) : undefined,
          value: (u, y) => (y == null ? '–' : words ? (words[y] ?? y) : y.toFixed(v.digits)),
        })),
      ],
      hooks: {
        draw: options.draw ? [options.draw] : [],
        setSelect: [
          u => {
            if (u.select.width > 4) {
              const a = u.posToVal(u.select.left, 'x'),
                b = u.posToVal(u.select.left + u.select.width, 'x');
              u.setSelect({ left: 0, width: 0, top: 0, height: 0 }, false);
              options.zoom(a, b);
            }
          },
        ],
      },
    },
    [[], ...group.list.map(() => [])],
    holder,
  );
  return { chart, group, holder, stats, shown: true, stale: false };
}

export class Lanes {
  constructor(root, values, options = {}) {
    this.root = root;
    this.range = [0, 1];
    this.options = options;
    this.frame = 0;
    const zoom = (a, b) => this.zoom(a, b);
    this.lanes = groups(values).map(group => lane(root, group, { ...options, zoom }));
    // lanes that nobody sees are drawn when they come into sight
    const seen = new IntersectionObserver(
      entries => {
        for (const entry of entries) {
          const its = this.lanes.find(l => l.holder === entry.target);
          its.shown = entry.isIntersecting;
          if (its.shown && its.stale) this.draw(its);
        }
      },
      { rootMargin: '60px' },
    );
    for (const l of this.lanes) seen.observe(l.holder);
    new ResizeObserver(() => {
      for (const l of this.lanes)
        l.chart.setSize({ width: Math.max(260, root.clientWidth - 14), height: options.height ?? 120 });
    }).observe(root);
    this.hands();
  }

  // wheel zooms about the pointer, one finger moves, two pinch; a double press shows all
  hands() {
    const place = x => {
      const box = this.lanes[0].chart.over.getBoundingClientRect();
      return this.range[0] + ((x - box.left) / box.width) * (this.range[1] - this.range[0]);
    };
    this.root.addEventListener(
      'wheel',
      event => {
        if (!event.target.closest('.u-over') || !this.lanes.length) return;
        event.preventDefault();
        const [min, max] = this.range;
        if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
          const by = ((event.deltaX || event.deltaY) / 600) * (max - min);
          this.zoom(min + by, max + by);
        } else {
          const at = place(event.clientX),
            factor = Math.exp(event.deltaY / 500);
          this.zoom(at - (at - min) * factor, at + (max - at) * factor);
        }
      },
      { passive: false },
    );
    this.root.addEventListener('dblclick', () => this.options.all?.());
    let touch = null;
    const fingers = event => [...event.touches].map(f => f.clientX);
    this.root.addEventListener(
      'touchstart',
      event => {
        if (event.target.closest('.u-over'))
          touch = { at: fingers(event), range: [...this.range], width: this.lanes[0].chart.over.clientWidth };
      },
      { passive: true },
    );
    this.root.addEventListener(
      'touchmove',
      event => {
        if (!touch) return;
        const now = fingers(event),
          [min, max] = touch.range,
          span = max - min;
        if (now.length === 1 && touch.at.length === 1) {
          const by = ((touch.at[0] - now[0]) / touch.width) * span;
          if (Math.abs(now[0] - touch.at[0]) > 8) {
            event.preventDefault();
            this.zoom(min + by, max + by);
          }
        } else if (now.length === 2 && touch.at.length === 2) {
          event.preventDefault();
          const factor = Math.abs(touch.at[0] - touch.at[1]) / Math.max(20, Math.abs(now[0] - now[1]));
          const middle = (min + max) / 2;
          this.zoom(middle - (span / 2) * factor, middle + (span / 2) * factor);
        }
      },
      { passive: false },
    );
    this.root.addEventListener('touchend', () => {
      touch = null;
    });
  }

  zoom(a, b) {
    const min = Math.min(a, b),
      max = Math.max(a, b);
    if (max - min < LEAST_SPAN) return;
    this.show(min, max);
    this.options.moved?.(min, max);
  }

  show(min, max) {
    this.range = [min, max];
    Object.assign(this.root.dataset, { from: min, to: max });
    if (!this.frame)
      this.frame = requestAnimationFrame(() => {
        this.frame = 0;
        for (const l of this.lanes) l.shown ? this.draw(l) : (l.stale = true);
      });
  }

  draw(l) {
    l.stale = false;
    if (!l.fresh) {
      l.chart.setData(align(l.group.list, ...(this.span ?? [])), false);
      l.fresh = true;
    }
    l.chart.setScale('x', { min: this.range[0], max: this.range[1] });
    l.stats.textContent = l.group.list.map(v => this.stat(v, l.group.list.length > 1)).join('   ');
  }

  stat(v, named) {
    if (v.state) return '';
    const name = named ? v.name + ': ' : '';
    if (this.options.seen) {
      const seen = this.options.seen(v, this.range);
      return name + (seen === undefined ? '…' : seen[1] == null ? 'nothing here' : seen.map(told).join(' … '));
    }
    let least = Infinity,
      most = -Infinity,
      sum = 0,
      n = 0;
    for (let i = lower(v.t, this.range[0]); i < v.t.length && v.t[i] <= this.range[1]; i++) {
      const y = v.y[i];
      if (y == null) continue;
      least = Math.min(least, y);
      most = Math.max(most, y);
      sum += y;
      n++;
    }
    return name + (n ? `${told(least)} … ${told(sum / n)} … ${told(most)}` : 'nothing here');
  }

  // a lane that nobody sees gets its data when it comes into sight
  setData(from, to) {
    this.span = [from, to];
    for (const l of this.lanes) l.fresh = false;
  }
}

// Index of the first time not before t.
export function lower(times, t) {
  let low = 0,
    high = times.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (times[middle] < t) low = middle + 1;
    else high = middle;
  }
  return low;
}
