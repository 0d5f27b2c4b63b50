import { usePairQuery } from '../../data/work.ts';
import { BandDifference } from '../../parts/BandDifference.tsx';
import { Loaded } from '../../parts/states.tsx';

interface DifferencePictureProps {
  trialId: string;
  id: string;
  other: string;
  names: [heard: string, against: string];
}

/** How the clip that is heard differs from the one it is held against, over the bands, as it is and equalised. */
export function DifferencePicture({ trialId, id, other, names: [heard, against] }: DifferencePictureProps) {
  const query = usePairQuery({ trialId, id, other });
  return (
    <figure className="mb-0" aria-label={`Difference of ${heard} from ${against}`}>
      <figcaption className="small">
        {heard} less {against} over the bands, as recorded, dB
      </figcaption>
      <Loaded of={[query]}>{() => <BandDifference pair={query.data!.pair} />}</Loaded>
    </figure>
  );
}
