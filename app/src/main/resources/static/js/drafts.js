// What is half typed into a note is kept while one looks at another page, until it is sent.
const key = field => `draft ${location.pathname} ${field.form?.getAttribute('action')} ${field.name}`;

for (const field of document.querySelectorAll('[data-draft]')) {
  const kept = sessionStorage.getItem(key(field));
  if (kept && !field.value) field.value = kept;
  field.addEventListener('input', () => sessionStorage.setItem(key(field), field.value));
  field.form?.addEventListener('submit', () => sessionStorage.removeItem(key(field)));
}
