// A long list of choices, or of lines to fill in, is found by typing any part of a name.
const LONG = 12;

function finder(label) {
  const find = document.createElement('input');
  find.type = 'search';
  find.className = 'form-control find-choice';
  find.placeholder = 'part of a name';
  find.setAttribute('aria-label', `Find in the list: ${label}`);
  find.autocomplete = 'off';
  return find;
}

function isMeant(find, text) {
  const words = find.value.toLowerCase().split(/\s+/).filter(Boolean);
  return words.every(w => text.toLowerCase().includes(w));
}

function searchable(select) {
  const all = [...select.options];
  const find = finder(select.labels?.[0]?.textContent.trim() || select.getAttribute('aria-label') || 'this list');
  find.addEventListener('input', () => {
    const fits = all.filter(o => isMeant(find, `${o.text} ${o.value}`));
    const chosen = select.value;
    select.replaceChildren(...(fits.length ? fits : all));
    select.value = fits.some(o => o.value === chosen) ? chosen : (fits.find(o => o.value) ?? fits[0] ?? all[0]).value;
    select.dispatchEvent(new Event('change', { bubbles: true }));
  });
  // Enter chooses what was found and goes on to it; it does not send the form
  find.addEventListener('keydown', event => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    select.focus();
  });
  select.before(find);
}

for (const select of document.querySelectorAll('select')) {
  if (select.options.length > LONG && !select.querySelector('optgroup') && !select.multiple) searchable(select);
}

function narrowed(list) {
  const lines = [...list.children];
  const find = finder(list.dataset.lines);
  const none = document.createElement('p');
  none.className = 'soft';
  none.setAttribute('role', 'status');
  find.addEventListener('input', () => {
    for (const line of lines) line.hidden = !isMeant(find, line.querySelector('label').textContent);
    none.textContent = lines.every(l => l.hidden) ? 'None is called so.' : '';
  });
  list.before(find, none);
}

for (const list of document.querySelectorAll('[data-lines]')) {
  if (list.children.length > LONG) narrowed(list);
}
