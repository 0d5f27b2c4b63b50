import { DoorPanel } from '../../parts/door/DoorPanel.tsx';
import { Sheet } from '../../parts/states.tsx';

/** Phones that log this trial: letting them in, and putting them out. */
export function PhonesView({ trialId }: { trialId: string }) {
  return (
    <Sheet title="Phones that log">
      <DoorPanel grant={{ trialId, role: 'log', listenerId: null }} whatFor="to log this trial" />
    </Sheet>
  );
}
