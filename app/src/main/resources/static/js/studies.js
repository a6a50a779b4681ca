// Another study asks for other things: the form is asked for anew.
for (const kind of document.querySelectorAll('input[name=kind]'))
  kind.addEventListener('change', () => kind.form.requestSubmit());
