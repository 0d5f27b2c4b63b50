import type { FrameBoom, FrameDraft } from '@marvet/core/domain/frame';
import { signed } from '@marvet/core/measure/catalogue';
import { type BoomFigures, directOverRoomDb, handMeasures, type PlaceAround, voiceOverNoiseDb } from '@marvet/core/place/boomFigures';
import { boomShadow } from '@marvet/core/place/boomShadow';
import { CornerDownRight, Crosshair, Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Dropdown from 'react-bootstrap/Dropdown';
import Form from 'react-bootstrap/Form';
import { boomNames, PATTERNS, patternName } from './boomWords.ts';
import type { BoomLevel } from './useMakeLevel.ts';

interface BoomTableProps {
  frame: FrameDraft;
  figures: readonly BoomFigures[];
  around: PlaceAround;
  onChange: (patch: Partial<FrameDraft>) => void;
  onJustOut: (boom: FrameBoom) => void;
  onLevel: (what: BoomLevel, boom: FrameBoom, name: string, figures: BoomFigures) => void;
  onDelete: (boom: FrameBoom, name: string) => void;
}

/** What of a boom can become a level. */
const LEVELS: [BoomLevel, string][] = [
  ['placement', 'its placement'],
  ['distance', 'its distance from the mouth'],
  ['orientation', 'its angle off the mouth’s axis'],
  ['windscreen', 'its windscreen'],
];

/** The booms side by side: what each gives and what it costs. */
export function BoomTable({ frame, figures, around, onChange, onJustOut, onLevel, onDelete }: BoomTableProps) {
  const names = boomNames(frame.booms);
  const set = (boom: FrameBoom, patch: Partial<FrameBoom>) => onChange({ booms: frame.booms.map((each) => (each.id === boom.id ? { ...each, ...patch } : each)) });
  return (
    <div className="table-scroll">
      <table className="plain booms">
        <thead>
          <tr>
            <th>Microphone</th>
            {frame.booms.map((boom, index) => (
              <th key={boom.id} scope="col" className="num">
                {names[index]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">Pattern</th>
            {frame.booms.map((boom, index) => (
              <td key={boom.id}>
                <Form.Select
                  size="sm"
                  aria-label={`Pattern ${names[index]}`}
                  value={patternName(boom)}
                  onChange={(event) => {
                    const chosen = PATTERNS.find((pattern) => pattern.name === event.target.value);
                    if (chosen) set(boom, { pressureShare: chosen.pressureShare, tubeM: chosen.tubeM, lengthM: chosen.lengthM });
                  }}
                >
                  {!PATTERNS.some((pattern) => pattern.name === patternName(boom)) && <option>{patternName(boom)}</option>}
                  {PATTERNS.map((pattern) => (
                    <option key={pattern.name}>{pattern.name}</option>
                  ))}
                </Form.Select>
              </td>
            ))}
          </tr>
          {frame.talkers.length > 1 && (
            <tr>
              <th scope="row">Looks at</th>
              {frame.booms.map((boom, index) => (
                <td key={boom.id}>
                  <Form.Select
                    size="sm"
                    aria-label={`Whom the microphone ${names[index]} looks at`}
                    value={boom.aimsAt}
                    onChange={(event) => set(boom, { aimsAt: Number(event.target.value) })}
                  >
                    {frame.talkers.map((talker, place) => (
                      <option key={talker.id} value={place}>
                        {talker.name}
                      </option>
                    ))}
                  </Form.Select>
                </td>
              ))}
            </tr>
          )}
          {rowsOf(frame, figures, around).map(({ label, title, cells }) => (
            <tr key={label}>
              <th scope="row" title={title}>
                {label}
              </th>
              {cells.map((cell, index) => (
                <td key={frame.booms[index]?.id} className={`num ${cell.bad ? 'bad' : ''}`}>
                  {cell.text}
                  {cell.more && <div className="small soft">{cell.more}</div>}
                </td>
              ))}
            </tr>
          ))}
          <tr className="no-print">
            <th scope="row">
              <span className="visually-hidden">Actions</span>
            </th>
            {frame.booms.map((boom, index) => (
              <td key={boom.id} className="text-end text-nowrap">
                <Button size="sm" variant="plain" aria-label={`Bring ${names[index]} just out of frame`} title="Just out of frame" onClick={() => onJustOut(boom)}>
                  <Crosshair size={15} aria-hidden />
                </Button>
                <Dropdown className="d-inline-block">
                  <Dropdown.Toggle size="sm" variant="plain" aria-label={`Make ${names[index]} a level of the plan`} title="Make it a level of the plan">
                    <CornerDownRight size={15} aria-hidden />
                  </Dropdown.Toggle>
                  <Dropdown.Menu>
                    {LEVELS.map(([what, words]) => (
                      <Dropdown.Item key={what} as="button" type="button" onClick={() => onLevel(what, boom, names[index] as string, figures[index] as BoomFigures)}>
                        {words}
                      </Dropdown.Item>
                    ))}
                  </Dropdown.Menu>
                </Dropdown>
                <Button size="sm" variant="plain" aria-label={`Take ${names[index]} away`} onClick={() => onDelete(boom, names[index] as string)}>
                  <Trash2 size={15} aria-hidden />
                </Button>
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}

interface Cell {
  text: string;
  more?: string;
  bad?: boolean;
}

const db = (value: number) => `${signed(value, 0)} dB`;

function rowsOf(frame: FrameDraft, figures: readonly BoomFigures[], around: PlaceAround): { label: string; title: string; cells: Cell[] }[] {
  const { booms, talkers } = frame;
  const row = (label: string, title: string, of: (figure: BoomFigures, boom: FrameBoom) => Cell) => ({
    label,
    title,
    cells: figures.map((figure, index) => of(figure, booms[index] as FrameBoom)),
  });
  const heard = (figure: BoomFigures, boom: FrameBoom) => figure.talkers[boom.aimsAt] ?? figure.talkers[0]!;
  return [
    row('From the mouth', 'Distance from the tip to the mouth it looks at', (figure, boom) => ({
      text: `${heard(figure, boom).distanceM.toFixed(2)} m`,
      more: handMeasures(heard(figure, boom).distanceM),
    })),
    row('Out of frame', 'How far all of it is out of the picture, square to the edge', ({ clearM, edge }) => ({
      text: clearM < 0 ? 'in the picture' : `${(clearM * 100).toFixed(0)} cm`,
      more: clearM < 0 ? `by ${(-clearM * 100).toFixed(0)} cm` : `beyond the ${edge}`,
      bad: clearM < 0,
    })),
    row('Off the mouth’s axis', 'Angle between where the talker looks and the microphone', (figure, boom) => ({ text: `${heard(figure, boom).mouthOffDeg.toFixed(0)}°` })),
    row('Words', 'Level at 0.5 to 2 kHz against the same voice 1 m straight ahead; computed', (figure, boom) => ({ text: db(heard(figure, boom).wordsDb) })),
    row('Chest', 'Level at 160 to 250 Hz, proximity included, against the words', (figure, boom) => ({
      text: `${db(heard(figure, boom).chestDb - heard(figure, boom).wordsDb)}`,
      more: 'against the words',
    })),
    row('Sibilants', 'Level at 5 to 8 kHz against the words: what the mouth and the pattern send aside', (figure, boom) => ({
      text: db(heard(figure, boom).sibilantsDb - heard(figure, boom).wordsDb),
      more: 'against the words',
    })),
    row('Voice over the room', 'Direct sound over the room’s own at 1 kHz; needs the station’s size and surfaces', (_figure, boom) => {
      const value = directOverRoomDb(frame, boom, around);
      return { text: value === null ? 'unknown' : db(value) };
    }),
    row('Voice over noise', 'A normal voice, 60 dB A at 1 m, over the station’s noise from all around', (figure, boom) => {
      const value = voiceOverNoiseDb(heard(figure, boom), boom, around.noiseDba);
      return { text: value === null ? 'unknown' : db(value) };
    }),
    row('Lean and turn cost', 'Words when the talker leans and turns as said: the middle of all positions, and the worst', ({ moves }) => ({
      text: db(moves.worstDb),
      more: `middle ${db(moves.medianDb)}`,
    })),
    row('Rear looks at', 'What lies behind it on its axis, and how much it takes in from there', ({ rear, rearDb }) => ({
      text: rear ? `${rear.at}, ${rear.distanceM.toFixed(1)} m` : 'nothing near',
      more: rearDb === null ? 'takes in nothing' : `takes in ${db(rearDb)}`,
    })),
    ...(frame.light
      ? [
          row('Shadow', 'Where the shadow of the microphone falls, by the light that is set', (_figure, boom) => {
            const shadow = boomShadow(frame, boom);
            return { text: shadow ? `on ${shadow.on}` : 'none', more: shadow?.inFrame ? 'in the picture' : 'out of the picture', bad: shadow?.inFrame === true };
          }),
        ]
      : []),
    row('Pole', 'Length from the hands, and what its weight is at a metre', ({ pole }) => ({
      text: pole ? `${pole.neededM.toFixed(1)} m` : 'on a stand',
      ...(pole ? { more: pole.reaches ? `as ${pole.heldKg.toFixed(1)} kg at 1 m` : 'does not reach' } : {}),
      bad: pole?.reaches === false,
    })),
    ...(talkers.length > 1
      ? [
          row('Cue to the next', 'How far it must swing to the other mouth, and what is lost where it stays', ({ cues }) => {
            const most = cues.reduce((a, b) => (b.lostDb > a.lostDb ? b : a));
            return { text: `${most.swingDeg.toFixed(0)}°`, more: `${most.lostDb.toFixed(0)} dB if it stays` };
          }),
        ]
      : []),
  ];
}
