// Files: dropped anywhere on their form, sent and fetched with their progress in sight.
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

/** A bar and words below a form; without a value the bar only moves. */
function progressLine(form) {
  form.querySelectorAll('.error[role=alert]').forEach(old => old.remove());
  const bar = document.createElement('progress');
  bar.max = 1;
  bar.setAttribute('aria-label', 'Progress of the file');
  const words = document.createElement('span');
  words.setAttribute('role', 'status');
  const line = document.createElement('p');
  line.className = 'row-line mt-2';
  line.append(bar, words);
  form.append(line);
  return { bar, words, line };
}

/**
 * Fetches what a form asks for and saves it under the name that the answer gives. An export is
 * written while it is sent, so that its size is only estimated; a broken one is not saved.
 */
async function fetchFile(form, submitter) {
  const { bar, words, line } = progressLine(form);
  const query = new URLSearchParams(new FormData(form, submitter));
  submitter.disabled = true;
  try {
    const answer = await fetch(`${submitter.getAttribute('formaction') ?? form.action}?${query}`);
    if (!answer.ok) throw new Error(`it answered ${answer.status}`);
    const expected = Number(answer.headers.get('X-Expected-Bytes'));
    const parts = [];
    let bytes = 0;
    for (const reader = answer.body.getReader(); ; ) {
      const { done, value } = await reader.read();
      if (done) break;
      parts.push(value);
      bytes += value.length;
      const size = `${(bytes / 1048576).toFixed(1)} MB`;
      if (expected) bar.value = Math.min(0.99, bytes / expected);
      words.textContent = expected ? `about ${Math.round(100 * bar.value)} %, ${size}` : size;
    }
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob(parts, { type: answer.headers.get('Content-Type') }));
    link.download = /filename="([^"]+)"/.exec(answer.headers.get('Content-Disposition') ?? '')?.[1] ?? 'take';
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
    bar.remove();
    words.textContent = `${link.download}: ${(bytes / 1048576).toFixed(1)} MB, saved among your downloads.`;
  } catch (broken) {
    line.remove();
    alertLine(form, `The export broke off (${broken.message}); nothing was saved. Export it again.`);
  } finally {
    submitter.disabled = false;
  }
}

for (const form of document.querySelectorAll('form[data-fetch-file]')) {
  form.addEventListener('submit', event => {
    event.preventDefault();
    fetchFile(form, event.submitter);
  });
}

function send(event, form) {
  event.preventDefault();
  const { bar, words, line } = progressLine(form);
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
