// Buttons that copy a text, such as a VIN or a code, and say so.
document.addEventListener('click', async event => {
  const button = event.target.closest('[data-copy]');
  if (!button) return;
  try {
    await navigator.clipboard.writeText(button.dataset.copy);
    button.dataset.copied = 'yes';
  } catch {
    // a page that is not on a secure connection may not: then it is marked, to be copied by hand
    const range = document.createRange();
    range.selectNodeContents(button.previousElementSibling ?? button);
    getSelection().removeAllRanges();
    getSelection().addRange(range);
  }
  setTimeout(() => delete button.dataset.copied, 1500);
});
