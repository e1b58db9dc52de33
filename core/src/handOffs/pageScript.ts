/** What ticks, remarks and saves in the page of a hand-off; plain JavaScript, as the file stands alone. */
export const PAGE_SCRIPT = String.raw`
'use strict';
const { project, handOff, baseline, person } = document.body.dataset;
const place = ['caderno', project, 'H-' + handOff, baseline, person].join(' ');
const kept = { by: '', notes: [] };
const noteOf = (instance, step) => {
  let note = kept.notes.find((n) => n.instance === instance && n.step === step);
  if (note === undefined) kept.notes.push((note = { instance, step, done: false, remark: '', minutes: '' }));
  return note;
};
const keep = () => {
  try {
    localStorage.setItem(place, JSON.stringify(kept));
  } catch {
    document.getElementById('kept').textContent = 'This browser keeps nothing for a page from a file. Save what you noted before you close it.';
  }
  const steps = document.querySelectorAll('li[data-step]');
  const done = document.querySelectorAll('li[data-step] > label > .done:checked').length;
  document.getElementById('progress').textContent = done + ' of ' + steps.length + ' steps done';
};
const where = (element) => {
  const step = element.closest('li[data-step]');
  return { at: step ?? element.closest('article'), note: noteOf(element.closest('article').dataset.key, step === null ? null : Number(step.dataset.step)) };
};
const show = (box, done) => {
  box.checked = done;
  box.closest('li[data-step]')?.classList.toggle('is-done', done);
};
const openRemark = (button) => {
  const { note } = where(button);
  const field = document.createElement('textarea');
  field.setAttribute('aria-label', 'Remark');
  field.value = note.remark;
  field.addEventListener('input', () => {
    note.remark = field.value;
    keep();
  });
  button.replaceWith(field);
  return field;
};
document.addEventListener('change', ({ target }) => {
  if (!target.matches('.done')) return;
  const { at, note } = where(target);
  note.done = target.checked;
  show(target, note.done);
  if (at.matches('article')) {
    for (const box of at.querySelectorAll('li .done')) {
      where(box).note.done = note.done;
      show(box, note.done);
    }
  } else if (!note.done) {
    const whole = at.closest('article').querySelector(':scope > .tools .done');
    where(whole).note.done = false;
    whole.checked = false;
  }
  keep();
});
document.addEventListener('input', ({ target }) => {
  if (target.matches('.minutes')) where(target).note.minutes = target.value;
  if (target.id === 'by') kept.by = target.value;
  keep();
});
document.addEventListener('click', ({ target }) => {
  if (target.matches('.remark')) openRemark(target).focus();
  if (target.id !== 'save') return;
  const notes = kept.notes.filter((n) => n.done || n.remark !== '' || n.minutes !== '');
  const file = { format: 'caderno-hand-off-notes', version: 1, project, handOff: Number(handOff), by: kept.by, notes };
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([JSON.stringify(file, null, 1)], { type: 'application/json' }));
  link.download = project + '-H-' + handOff + '-notes.json';
  link.click();
  URL.revokeObjectURL(link.href);
});
try {
  const before = JSON.parse(localStorage.getItem(place) ?? 'null');
  if (before !== null) Object.assign(kept, before);
} catch {
  document.getElementById('kept').textContent = 'What was noted here before cannot be read any more. Begin anew, and save it as a file.';
}
document.getElementById('by').value = kept.by;
for (const article of document.querySelectorAll('article')) {
  for (const note of kept.notes.filter((n) => n.instance === article.dataset.key)) {
    const at = note.step === null ? article : article.querySelector('li[data-step="' + note.step + '"]');
    if (at === null) continue;
    show(at.querySelector(note.step === null ? ':scope > .tools .done' : ':scope > label > .done'), note.done);
    if (note.step === null) at.querySelector('.minutes').value = note.minutes;
    if (note.remark !== '') openRemark(at.querySelector(note.step === null ? ':scope > .tools > .remark' : ':scope > .remark'));
  }
}
keep();
`;
