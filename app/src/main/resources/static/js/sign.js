// A name written on the screen below a report.
const form = document.getElementById('sign');
if (form) {
  const canvas = form.querySelector('canvas');
  const pen = canvas.getContext('2d');
  const field = form.elements.drawing;
  pen.lineWidth = 3;
  pen.lineCap = 'round';
  pen.lineJoin = 'round';
  let writing = false;

  const at = event => {
    const box = canvas.getBoundingClientRect();
    return [
      ((event.clientX - box.left) * canvas.width) / box.width,
      ((event.clientY - box.top) * canvas.height) / box.height,
    ];
  };

  canvas.addEventListener('pointerdown', event => {
    canvas.setPointerCapture(event.pointerId);
    writing = true;
    pen.beginPath();
    pen.moveTo(...at(event));
  });
  canvas.addEventListener('pointermove', event => {
    if (!writing) return;
    pen.lineTo(...at(event));
    pen.stroke();
    field.value = canvas.toDataURL('image/png');
  });
  for (const end of ['pointerup', 'pointercancel']) {
    canvas.addEventListener(end, () => {
      writing = false;
    });
  }
  document.getElementById('unsign').addEventListener('click', () => {
    pen.clearRect(0, 0, canvas.width, canvas.height);
    field.value = '';
  });
}
