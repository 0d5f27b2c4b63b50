import { escaped } from '../formats/escaped.ts';
import { signed } from '../measure/catalogue.ts';
import { ANSWERING, type AnswerSheet, answerForm } from './answerSheet.ts';
import { BLIND_LETTERS } from './blindOrder.ts';

/** What a page with clips says; its clips are put in one after the other. */
export interface ReelPage {
  title: string;
  matchedLufs: number;
  /** One a clip, in their order; empty where it is heard blind. */
  names: readonly string[];
  /** Letters that the page brings along, so that it looks the same everywhere. */
  fonts: readonly EmbeddedFont[];
  /** What is asked of who listens; null where it is only listened to. */
  answers: AnswerSheet | null;
}

/** A font in one weight, as WOFF2. */
export interface EmbeddedFont {
  weight: number;
  base64: string;
}

/** A page in parts: what stands before the clips, what goes around each, and what comes after them. */
export interface ReelShell {
  head: string;
  before: string;
  after: string;
  tail: string;
}

const STYLE = `
:root { color-scheme: light dark; --paper: light-dark(#f4efe4, #13171a); --ink: light-dark(#171b1e, #f4efe4); --soft: light-dark(#4c5357, #b9bfc2); --accent: light-dark(#0b5560, #7bd5cb); }
body { font: 17px/1.45 'Reel', system-ui, sans-serif; background: var(--paper); color: var(--ink); max-width: 52rem; margin: 0 auto; padding: 1rem; }
.desk { position: sticky; top: 0; background: var(--paper); padding-bottom: .4rem; z-index: 1; }
.clips { display: grid; grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr)); gap: .6rem; margin: 1rem 0; }
button { font: inherit; color: inherit; background: transparent; border: 2px solid currentColor; border-radius: .5rem; padding: .6rem .9rem; min-height: 48px; cursor: pointer; }
.clips button b { display: block; font-size: 1.8rem; }
button[aria-pressed="true"] { background: var(--ink); color: var(--paper); }
.line { display: flex; flex-wrap: wrap; gap: .8rem; align-items: center; margin: .8rem 0; }
input[type="range"] { accent-color: var(--accent); min-height: 44px; }
#at { flex: 1 1 14rem; }
fieldset { border: 1px solid var(--soft); border-radius: .5rem; margin: 1rem 0; }
legend { font-weight: 700; }
.points { display: flex; flex-wrap: wrap; }
.points label { min-width: 2.6rem; min-height: 44px; display: inline-flex; align-items: center; gap: .2rem; }
input[type="text"], select { font: inherit; color: inherit; background: transparent; border: 1px solid currentColor; border-radius: .4rem; padding: .5rem; min-height: 44px; max-width: 100%; }
option { color: var(--ink); background: var(--paper); }
.grow { flex: 1 1 16rem; }
.letter { font-weight: 700; font-size: 1.4rem; min-width: 1.6rem; }
.soft { color: var(--soft); font-size: .9rem; }
:focus-visible { outline: 3px solid var(--accent); outline-offset: 2px; }
`;

/** Plays all clips at once and lets one be heard: switched within 5 ms, at the same place. It asks nobody for anything. */
const PLAYER = `
'use strict';
const RATE = 48000, FADE = 0.005;
const $ = (id) => document.getElementById(id);
const buttons = [...document.querySelectorAll('.clips button')];
let context, volume, gains = [], sources = [], buffers = [], heard = 0, playing = false, begun = 0, from = 0, length = 0;

const bytesOf = (text) => Uint8Array.from(atob(text.trim()), (letter) => letter.charCodeAt(0)).buffer;

async function ready() {
  if (context) return;
  context = new AudioContext({ sampleRate: RATE });
  volume = context.createGain();
  volume.connect(context.destination);
  level();
  buffers = await Promise.all([...document.querySelectorAll('script.clip')].map((each) => context.decodeAudioData(bytesOf(each.textContent))));
  length = buffers[0].duration;
  $('at').max = String(length);
  $('at').disabled = false;
  gains = buffers.map((_, clip) => {
    const gain = context.createGain();
    gain.gain.value = clip === heard ? 1 : 0;
    gain.connect(volume);
    return gain;
  });
}

function level() {
  const db = Number($('level').value);
  $('db').textContent = '\\u2212' + Math.abs(db) + ' dB';
  if (volume) volume.gain.setTargetAtTime(10 ** (db / 20), context.currentTime, 0.02);
}

const place = () => (playing ? (from + Math.max(0, context.currentTime - begun)) % length : from);

function start(at) {
  for (const source of sources) source.stop();
  from = at;
  begun = context.currentTime + 0.02;
  sources = buffers.map((buffer, clip) => {
    const source = context.createBufferSource();
    source.buffer = buffer;
    source.loop = true;
    source.connect(gains[clip]);
    source.start(begun, at);
    return source;
  });
}

async function play() {
  await ready();
  if (playing) {
    from = place();
    for (const source of sources) source.stop();
    sources = [];
    playing = false;
  } else {
    await context.resume();
    playing = true;
    start(from);
  }
  show();
}

function hear(clip) {
  heard = clip;
  gains.forEach((gain, each) => {
    gain.gain.cancelScheduledValues(context.currentTime);
    gain.gain.setValueAtTime(gain.gain.value, context.currentTime);
    gain.gain.linearRampToValueAtTime(each === clip ? 1 : 0, context.currentTime + FADE);
  });
  show();
}

function seek(at) {
  const to = Math.max(0, Math.min(length - 0.05, at));
  if (playing) start(to);
  else from = to;
  show();
}

function show() {
  buttons.forEach((button, clip) => button.setAttribute('aria-pressed', String(clip === heard)));
  $('play').textContent = playing ? 'Pause' : 'Play';
  const at = place();
  if (document.activeElement !== $('at') || playing) $('at').value = String(at);
  $('time').textContent = at.toFixed(1) + ' / ' + length.toFixed(1) + ' s';
}

buttons.forEach((button, clip) => button.addEventListener('click', () => hear(clip)));
$('play').addEventListener('click', play);
$('level').addEventListener('input', level);
$('at').addEventListener('input', () => seek(Number($('at').value)));
document.addEventListener('keydown', (event) => {
  if (event.ctrlKey || event.altKey || event.metaKey || event.target.closest('[type="text"], select')) return;
  const chosen = event.target.closest('input');
  const clip = buttons.findIndex((button) => button.dataset.letter.toLowerCase() === event.key.toLowerCase());
  if (clip >= 0) hear(clip);
  else if (event.key === ' ' && !event.target.closest('button, summary, [type="radio"]')) play();
  else if (event.key === 'ArrowLeft' && length > 0 && !chosen) seek(place() - 1);
  else if (event.key === 'ArrowRight' && length > 0 && !chosen) seek(place() + 1);
  else return;
  event.preventDefault();
});
setInterval(() => playing && show(), 50);
level();
show();
`;

const fontFace = ({ weight, base64 }: EmbeddedFont) => `@font-face { font-family: 'Reel'; font-weight: ${weight}; src: url(data:font/woff2;base64,${base64}) format('woff2'); }\n`;

/** A page that opens from a folder, without a server and without a network: clips are in it as they are, and are switched at once. */
export function reelPage({ title, matchedLufs, names, fonts, answers }: ReelPage): ReelShell {
  const buttons = names.map(
    (name, clip) => `<button type="button" aria-pressed="${clip === 0}" data-letter="${BLIND_LETTERS[clip]}"><b>${BLIND_LETTERS[clip]}</b>${escaped(name)}</button>`,
  );
  return {
    head: `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title>
<style>${fonts.map(fontFace).join('')}${STYLE}</style>
</head>
<body>
<main>
<h1>${escaped(title)}</h1>
<p>The same words on each, from the same syllable on, matched to ${signed(matchedLufs, 1)} LUFS by the voice. Switch as often as you like: the place stays.</p>
<div class="desk">
<div class="clips">
${buttons.join('\n')}
</div>
<div class="line">
<button type="button" id="play">Play</button>
<input type="range" id="at" min="0" max="1" step="0.01" value="0" aria-label="Position in seconds" disabled>
<span id="time"></span>
</div>
</div>
<div class="line">
<label for="level">Level</label>
<input type="range" id="level" min="-40" max="0" step="1" value="-20">
<span id="db"></span>
</div>
<p class="soft">Keys: ${names.map((_, clip) => BLIND_LETTERS[clip]).join(', ')} to hear that one; space to play and pause; arrows to go back and on by a second. It starts quietly: raise the level with care. What is best in one room and on one pair of headphones need not be so in another.</p>
${answers ? answerForm(answers) : ''}</main>
`,
    before: '<script type="text/plain" class="clip">',
    after: '</script>\n',
    tail: `<script>${PLAYER}</script>\n${answers ? `<script>${ANSWERING}</script>\n` : ''}</body>\n</html>\n`,
  };
}
