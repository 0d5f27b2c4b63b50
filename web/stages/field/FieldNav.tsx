import Nav from 'react-bootstrap/Nav';

export const FIELD_VIEWS = ['runner', 'walk', 'devices'] as const;
export type FieldViewName = (typeof FIELD_VIEWS)[number];
const NAMES: Record<FieldViewName, string> = { runner: 'Runner', walk: 'Range walk', devices: 'Devices' };

/** The three views of Field. */
export function FieldNav({ view, onView }: { view: FieldViewName; onView: (view: FieldViewName) => void }) {
  return (
    <Nav variant="underline" className="field-nav" activeKey={view} onSelect={(key) => onView(key as FieldViewName)}>
      {FIELD_VIEWS.map((each) => (
        <Nav.Item key={each}>
          <Nav.Link as="button" type="button" eventKey={each}>
            {NAMES[each]}
          </Nav.Link>
        </Nav.Item>
      ))}
    </Nav>
  );
}
