import Nav from 'react-bootstrap/Nav';

export const FIELD_VIEWS = ['runner', 'walk', 'record', 'devices', 'lines', 'phones'] as const;
export type FieldViewName = (typeof FIELD_VIEWS)[number];
const NAMES: Record<FieldViewName, string> = { runner: 'Runner', walk: 'Range walk', record: 'Record', devices: 'Devices', lines: 'Lines', phones: 'Phones' };
/** The laptop alone opens the door, and has the inputs. */
const AT_LAPTOP: readonly FieldViewName[] = ['phones', 'record'];

/** The views of Field. */
export function FieldNav({ view, guest, onView }: { view: FieldViewName; guest: boolean; onView: (view: FieldViewName) => void }) {
  return (
    <Nav variant="underline" className="field-nav" activeKey={view} onSelect={(key) => onView(key as FieldViewName)}>
      {FIELD_VIEWS.filter((each) => !guest || !AT_LAPTOP.includes(each)).map((each) => (
        <Nav.Item key={each}>
          <Nav.Link as="button" type="button" eventKey={each}>
            {NAMES[each]}
          </Nav.Link>
        </Nav.Item>
      ))}
    </Nav>
  );
}
