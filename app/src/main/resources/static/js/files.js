// Files: dropped anywhere on their form, and sent with their progress in sight.
for (const form of document.querySelectorAll('form[enctype="multipart/form-data"]')) {
  const field = form.querySelector('input[type=file]');
  if (!field) continue;
  for (const over of ['dragenter', 'dragover']) {
    form.addEventListener(over, event => {
      event.preventDefault();
      form.classList.add('drop-here');
    });
  }
  form.addEventListener('dragleave', () => form.classList.remove('drop-here'));
  form.addEventListener('drop', event => {
    event.preventDefault();
    form.classList.remove('drop-here');
    if (event.dataTransfer.files.length) field.files = event.dataTransfer.files;
    field.dispatchEvent(new Event('change', { bubbles: true }));
  });
  form.addEventListener('submit', event => {
    const most = Number(form.dataset.most ?? Infinity);
    if ([...field.files].some(f => f.size > most)) {
      event.preventDefault();
      alertLine(form, `The file is larger than ${Math.round(most / 1048576)} MB. Cut it, or export fewer values.`);
    } else if (field.files.length) send(event, form);
  });
}

const CARRIED = 'carried-notice';
for (const text of JSON.parse(sessionStorage.getItem(CARRIED) ?? '[]')) {
  const line = document.createElement('p');
  line.className = 'notice';
  line.setAttribute('role', 'status');
  line.textContent = text;
  document.getElementById('work')?.prepend(line);
}
sessionStorage.removeItem(CARRIED);

function send(event, form) {
  event.preventDefault();
  form.querySelectorAll('.error[role=alert]').forEach(old => old.remove());
  const bar = document.createElement('progress');
  bar.max = 1;
  const words = document.createElement('span');
  words.setAttribute('role', 'status');
  const line = document.createElement('p');
  line.className = 'row-line mt-2';
  line.append(bar, words);
  form.append(line);
  const request = new XMLHttpRequest();
  request.upload.addEventListener('progress', sent => {
    if (!sent.lengthComputable) return;
    bar.value = sent.loaded / sent.total;
    words.textContent =
      sent.loaded < sent.total ? `${Math.round(100 * bar.value)} % sent` : 'All sent; it is being read.';
  });
  request.addEventListener('load', () => {
    const page = new DOMParser().parseFromString(request.responseText, 'text/html');
    const told = kind => [...page.querySelectorAll(`main .${kind}[role]`)].map(p => p.textContent.trim());
    const errors = told('error').filter(Boolean);
    line.remove();
    if (errors.length && new URL(request.responseURL).pathname === location.pathname) {
      errors.forEach(text => alertLine(form, text));
      return;
    }
    // what the answer said once is carried over to the page itself
    sessionStorage.setItem(CARRIED, JSON.stringify(told('notice')));
    location.assign(request.responseURL);
  });
  request.addEventListener('error', () => {
    line.remove();
    alertLine(form, 'The connection was lost while the file was sent. Nothing was kept; send it again.');
  });
  request.open('POST', form.action);
  request.send(new FormData(form, event.submitter));
}

function alertLine(form, text) {
  const line = document.createElement('p');
  line.className = 'error';
  line.setAttribute('role', 'alert');
  line.textContent = text;
  form.append(line);
}
