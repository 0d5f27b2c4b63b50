import type { BlindRound, RoundKind } from '../domain/round.ts';
import { escaped } from '../formats/escaped.ts';
import { BLIND_LETTERS } from './blindOrder.ts';

/** What a page that is sent asks of who listens. */
export interface AnswerSheet {
  kind: Extract<RoundKind, 'scores' | 'ranked'>;
  /** The seat that the answers belong to, and whose it is. */
  listenerId: string;
  listenerName: string;
  clips: number;
  criteria: readonly Pick<BlindRound['criteria'][number], 'id' | 'name' | 'remark' | 'worstWords' | 'bestWords'>[];
  /** Names by letter, locked; the key is not in the page. */
  locked: string;
}

const POINTS = Array.from({ length: 11 }, (_, points) => points);

/** The form of a page that is sent: how each clip is judged, what it was heard on, the file of answers, and the names once they may open. */
export function answerForm(sheet: AnswerSheet): string {
  const letters = BLIND_LETTERS.slice(0, sheet.clips);
  const rows = sheet.kind === 'scores' ? scoreRow : placeRow;
  const criteria = sheet.criteria.map(({ id, name, remark, worstWords, bestWords }) => {
    const ends = sheet.kind === 'scores' ? [worstWords && `0: ${worstWords}.`, bestWords && `10: ${bestWords}.`] : [];
    const help = [...ends, remark].filter(Boolean).join(' ');
    return `<fieldset data-criterion="${escaped(id)}">
<legend>${escaped(name)}</legend>
${help ? `<p class="soft">${escaped(help)}</p>\n` : ''}${letters.map((letter) => rows({ id, name, letter, letters })).join('\n')}
</fieldset>`;
  });
  const how =
    sheet.kind === 'scores'
      ? 'Give each clip 0 to 10 points, and say why in a word or two.'
      : 'Give each clip its place, 1 for the best. Clips that are equally good get the same place.';
  return `<form id="answers" data-listener="${escaped(sheet.listenerId)}" data-kind="${sheet.kind}" data-name="${escaped(sheet.listenerName)}">
<h2>Your answers, ${escaped(sheet.listenerName)}</h2>
<p>${how} Then save your answers: that makes a small file. Send it back to whoever sent you this.</p>
${criteria.join('\n')}
<div class="line"><label for="listened">What you listened on</label><input type="text" id="listened" class="grow" maxlength="120" placeholder="headphones, room, loudspeakers"></div>
<div class="line"><button type="submit">Save my answers</button><span id="open" role="status"></span></div>
</form>
<details>
<summary>Which was which</summary>
<p class="soft">The names are locked in this page (AES, 128 bit) and the key is not in it: whoever sent it gets the key once your answers are read in, and can send it to you. Nobody can read them out of the page before. A voice that you know, or a microphone that you know by its sound, is not locked.</p>
<div class="line"><label for="key">Key</label><input type="text" id="key" class="grow" autocomplete="off" spellcheck="false"><button type="button" id="unlock">Open the names</button></div>
<p id="names" role="status"></p>
</details>
<script type="text/plain" id="locked">${sheet.locked}</script>
`;
}

interface Row {
  id: string;
  name: string;
  letter: string;
  letters: readonly string[];
}

function scoreRow({ id, name, letter }: Row): string {
  const points = POINTS.map(
    (value) =>
      `<label><input type="radio" name="${escaped(`${id} ${letter}`)}" value="${value}" aria-label="${escaped(`${name}, clip ${letter}: ${value} points`)}">${value}</label>`,
  );
  return `<div class="line" data-letter="${letter}"><span class="letter">${letter}</span><span class="points">${points.join('')}</span><input type="text" class="grow why" maxlength="4000" aria-label="${escaped(`${name}, clip ${letter}: why`)}" placeholder="why"></div>`;
}

function placeRow({ name, letter, letters }: Row): string {
  const places = letters.map((_, at) => `<option value="${at + 1}">${at + 1}</option>`);
  return `<div class="line" data-letter="${letter}"><span class="letter">${letter}</span><select aria-label="${escaped(`${name}, place of clip ${letter}`)}"><option value="">place</option>${places.join('')}</select></div>`;
}

/** Gathers the answers, keeps them from being lost, writes their file, and opens the names with a key. */
export const ANSWERING = `
(() => {
const form = document.getElementById('answers'), open = document.getElementById('open'), kept = 'answers ' + form.dataset.listener;
const sets = [...form.querySelectorAll('fieldset')];
let saved = true;

function gathered() {
  const ratings = [], orders = {};
  let missing = 0;
  for (const set of sets) {
    const criterionId = set.dataset.criterion, places = {};
    for (const row of set.querySelectorAll('[data-letter]')) {
      const chosen = row.querySelector('input:checked, select');
      if (!chosen || chosen.value === '') missing++;
      else if (chosen.tagName === 'SELECT') (places[chosen.value] ??= []).push(row.dataset.letter);
      else ratings.push({ letter: row.dataset.letter, criterionId, points: Number(chosen.value), reason: row.querySelector('.why').value.trim() });
    }
    if (form.dataset.kind === 'ranked') orders[criterionId] = Object.keys(places).sort((a, b) => a - b).map((place) => places[place]);
  }
  return { missing, answers: { marvetAnswers: 1, listenerId: form.dataset.listener, listenedOn: document.getElementById('listened').value.trim(), ratings, orders } };
}

const fields = () => [...form.querySelectorAll('input, select')];
const values = () => fields().map((field) => (field.type === 'radio' ? field.checked : field.value));
function remember() {
  saved = false;
  try {
    localStorage.setItem(kept, JSON.stringify(values()));
  } catch {
    open.textContent = 'This browser keeps nothing for a page from a folder: save before you close it.';
  }
}
try {
  const before = JSON.parse(localStorage.getItem(kept) ?? 'null');
  if (before) fields().forEach((field, at) => { if (field.type === 'radio') field.checked = before[at] === true; else field.value = before[at] ?? ''; });
} catch {
  open.textContent = 'This browser keeps nothing for a page from a folder: save before you close it.';
}
form.addEventListener('input', remember);
addEventListener('beforeunload', (event) => { if (!saved) event.preventDefault(); });

form.addEventListener('submit', (event) => {
  event.preventDefault();
  const { missing, answers } = gathered();
  if (missing > 0) return void (open.textContent = missing + (missing === 1 ? ' answer is' : ' answers are') + ' still open.');
  if (answers.listenedOn === '') {
    open.textContent = 'Say what you listened on.';
    return document.getElementById('listened').focus();
  }
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([JSON.stringify(answers, null, 1)], { type: 'application/json' }));
  link.download = 'answers of ' + form.dataset.name.replace(/[^A-Za-z0-9 _-]/g, '') + '.json';
  link.click();
  saved = true;
  open.textContent = 'Saved. Send the file back to whoever sent you this.';
});

document.getElementById('unlock').addEventListener('click', async () => {
  const names = document.getElementById('names'), hex = document.getElementById('key').value.replace(/[^0-9a-f]/gi, '');
  if (!globalThis.crypto?.subtle) return void (names.textContent = 'This browser opens nothing locked in a page from a folder. Try another browser.');
  try {
    if (hex.length !== 32) throw new Error('length');
    const key = await crypto.subtle.importKey('raw', Uint8Array.from(hex.match(/../g), (pair) => parseInt(pair, 16)), 'AES-GCM', false, ['decrypt']);
    const bytes = new Uint8Array(bytesOf(document.getElementById('locked').textContent));
    const text = await crypto.subtle.decrypt({ name: 'AES-GCM', iv: bytes.subarray(0, 12) }, key, bytes.subarray(12));
    names.textContent = Object.entries(JSON.parse(new TextDecoder().decode(text))).map(([letter, name]) => letter + ': ' + name).join('. ') + '.';
  } catch {
    names.textContent = 'That key does not fit. It has 32 digits and letters from a to f.';
  }
});
})();
`;
