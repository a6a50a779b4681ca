// Pictures of a job: pasted into the form, and marked with arrows and rings.
const paste = document.querySelector('form[data-paste]');
if (paste) {
  document.addEventListener('paste', event => {
    const files = event.clipboardData?.files;
    if (!files?.length) return;
    event.preventDefault();
    paste.querySelector('input[type=file]').files = files;
    paste.requestSubmit(paste.querySelector('button'));
  });
}

const NS = 'http://www.w3.org/2000/svg';
// as the marks are drawn into the picture for the report
const LINE = 0.006;
const HEAD = 5;
const HEAD_ANGLE = (25 * Math.PI) / 180;

function outline(mark, width, height) {
  const [x1, y1, x2, y2] = [mark.x1 * width, mark.y1 * height, mark.x2 * width, mark.y2 * height];
  if (mark.shape === 'RING') {
    const circle = document.createElementNS(NS, 'circle');
    circle.setAttribute('cx', x1);
    circle.setAttribute('cy', y1);
    circle.setAttribute('r', Math.hypot(x2 - x1, y2 - y1));
    return circle;
  }
  const head = HEAD * LINE * Math.max(width, height);
  const back = Math.atan2(y1 - y2, x1 - x2);
  const side = angle => `M${x2} ${y2}L${x2 + head * Math.cos(back + angle)} ${y2 + head * Math.sin(back + angle)}`;
  const path = document.createElementNS(NS, 'path');
  path.setAttribute('d', `M${x1} ${y1}L${x2} ${y2}${side(HEAD_ANGLE)}${side(-HEAD_ANGLE)}`);
  return path;
}

const svg = document.querySelector('#marked svg');
if (svg) {
  const { width, height } = svg.viewBox.baseVal;
  const field = document.getElementById('marks');
  const marks = JSON.parse(svg.dataset.marks);
  let shape = 'ARROW';
  let drawn = null;

  const paint = () => {
    svg.replaceChildren();
    const line = LINE * Math.max(width, height);
    for (const mark of drawn ? [...marks, drawn] : marks) {
      for (const wide of [2 * line, line]) {
        const element = outline(mark, width, height);
        element.setAttribute('stroke-width', wide);
        if (wide > line) element.setAttribute('class', 'beneath');
        svg.append(element);
      }
    }
    field.value = JSON.stringify(marks);
  };

  const at = event => {
    const box = svg.getBoundingClientRect();
    const share = (value, from, size) => Math.min(1, Math.max(0, (value - from) / size));
    return [share(event.clientX, box.left, box.width), share(event.clientY, box.top, box.height)];
  };

  svg.addEventListener('pointerdown', event => {
    svg.setPointerCapture(event.pointerId);
    const [x, y] = at(event);
    drawn = { shape, x1: x, y1: y, x2: x, y2: y };
  });
  svg.addEventListener('pointermove', event => {
    if (!drawn) return;
    [drawn.x2, drawn.y2] = at(event);
    paint();
  });
  svg.addEventListener('pointerup', () => {
    // a mere touch marks nothing
    if (drawn && Math.hypot(drawn.x2 - drawn.x1, drawn.y2 - drawn.y1) > 0.01) marks.push(drawn);
    drawn = null;
    paint();
  });
  document.getElementById('unmark').addEventListener('click', () => {
    marks.pop();
    paint();
  });
  const tools = document.querySelectorAll('[data-mark]');
  for (const tool of tools) {
    tool.addEventListener('click', () => {
      shape = tool.dataset.mark;
      for (const other of tools) other.setAttribute('aria-pressed', String(other === tool));
    });
  }
  paint();
}
