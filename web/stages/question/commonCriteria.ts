import type { CriterionDraft } from '@marvet/core/domain/criterion';

const base = { measureId: null, dealbreaker: null, remark: '', position: 0 };

/** A start that suits most questions: two measured, two listened to, one inspected. */
export const COMMON_CRITERIA: CriterionDraft[] = [
  { ...base, name: 'Voice over noise', kind: 'measured', measureId: 'noise.snrDb', weight: 25, best: 40, worst: 6 },
  { ...base, name: 'Practical noise floor', kind: 'measured', measureId: 'noise.practicalFloorDbfsA', weight: 15, best: -70, worst: -40 },
  { ...base, name: 'Words are clear', kind: 'listened', weight: 30, best: 10, worst: 0, remark: '10: every word at once. 0: had to guess.' },
  { ...base, name: 'Sounds like the person', kind: 'listened', weight: 20, best: 10, worst: 0, remark: '10: as standing there. 0: a telephone.' },
  { ...base, name: 'Build and connectors', kind: 'inspected', weight: 10, best: 10, worst: 0, remark: '10: would survive a drop. 0: broke on the day.' },
];
