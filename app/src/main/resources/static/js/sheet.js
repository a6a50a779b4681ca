// A circuit sheet is brought nearer by buttons, wheel with Ctrl, or two fingers, and dragged when it is near.
const NEAREST = 5;
const STEP = 1.4;

for (const tools of document.querySelectorAll('[data-near]')) {
  const svg = document.getElementById(tools.dataset.near);
  const whole = svg.viewBox.baseVal;
  const { width, height } = whole;
  let near = 1;
  let x = 0;
  let y = 0;

  const show = () => {
    const w = width / near;
    const h = height / near;
    x = Math.min(Math.max(0, x), width - w);
    y = Math.min(Math.max(0, y), height - h);
    svg.setAttribute('viewBox', `${x} ${y} ${w} ${h}`);
    svg.classList.toggle('near', near > 1);
    svg.style.aspectRatio = `${width} / ${height}`;
    tools.querySelector('[data-by=whole]').disabled = near === 1;
    tools.querySelector('[data-by=farther]').disabled = near === 1;
    tools.querySelector('[data-by=nearer]').disabled = near === NEAREST;
  };

  // what lies at this share of the picture stays where it is
  const zoom = (to, atX = 0.5, atY = 0.5) => {
    const next = Math.min(NEAREST, Math.max(1, to));
    x += width * atX * (1 / near - 1 / next);
    y += height * atY * (1 / near - 1 / next);
    near = next;
    show();
  };

  tools.hidden = false;
  tools.addEventListener('click', event => {
    const by = event.target.closest('[data-by]')?.dataset.by;
    if (by) zoom({ nearer: near * STEP, farther: near / STEP, whole: 1 }[by]);
  });

  svg.addEventListener(
    'wheel',
    event => {
      if (!event.ctrlKey) return;
      event.preventDefault();
      const at = svg.getBoundingClientRect();
      zoom(
        near * Math.exp(-event.deltaY / 300),
        (event.clientX - at.left) / at.width,
        (event.clientY - at.top) / at.height,
      );
    },
    { passive: false },
  );

  let held = null;
  svg.addEventListener('pointerdown', event => {
    if (near > 1 && !event.target.closest('a')) {
      held = { at: [event.clientX, event.clientY], from: [x, y] };
      svg.setPointerCapture(event.pointerId);
    }
  });
  svg.addEventListener('pointermove', event => {
    if (!held) return;
    const scale = width / near / svg.getBoundingClientRect().width;
    x = held.from[0] - (event.clientX - held.at[0]) * scale;
    y = held.from[1] - (event.clientY - held.at[1]) * scale;
    show();
  });
  for (const end of ['pointerup', 'pointercancel']) svg.addEventListener(end, () => (held = null));
  show();
}
