/** For whom: so many people, what their sound counts, and how many units stand by for them. */
export interface GearRole {
  roleId: string;
  name: string;
  count: number;
  /** Units that are kept beside, of a kind that the role uses. */
  spares: number;
  /** How much one person of it counts against one of another role, 1 to 9. */
  importance: number;
  /** Whether it breaks things. */
  rough: boolean;
}

/** A candidate that may be given out. */
export interface GearKind {
  candidateId: string;
  name: string;
  /** What is sure of its score, 0 to 100. */
  points: number;
  /** A limit that would rule it out was not tested everywhere. */
  untested: boolean;
  /** What one unit of it is made of. */
  parts: { itemId: string; uses: number }[];
}

/** A piece of equipment that units are made of. */
export interface GearPart {
  itemId: string;
  name: string;
  /** Price of one with what is sold apart; null where it cannot be bought: no price, or in another currency. */
  price: number | null;
  /** Units that one of it serves, as a receiver of two channels. */
  serves: number;
  atHand: number;
}

/** Something that is asked for; those of a role say which candidates meet it. */
export type Wish =
  | { kind: 'people' | 'spares'; roleId: string }
  | { kind: 'least'; roleId: string; criterionId: string; limit: number; met: string[] }
  | { kind: 'lock' | 'hide'; roleId: string; met: string[] }
  | { kind: 'budget' };

/** Who is to get what, from what. */
export interface GearProblem {
  roles: GearRole[];
  kinds: GearKind[];
  parts: GearPart[];
  wishes: Wish[];
  /** What may be spent; null where nobody set it. */
  budget: number | null;
  currency: string;
  /** Candidates that are not given out, with why. */
  left: { candidateId: string; name: string; why: 'ruled out' | 'no score' | 'no parts in Kit' }[];
}

/** One way to share out. */
export interface ShareOut {
  /** Points of 100 in the mean over people, each counted by the importance of the role. */
  points: number;
  cost: number;
  /** Of each role, who gets what, and what stands by. */
  given: { roleId: string; kinds: { candidateId: string; count: number; spares: number }[] }[];
  buy: { itemId: string; count: number; price: number }[];
  /** What comes from the shelf. */
  fromHand: { itemId: string; count: number }[];
}

/** So much more money is looked at beside the budget, in its currency. */
export const NEXT = 100;

/** Who gets what. */
export interface Allocation {
  problem: GearProblem;
  /** The most points that the budget buys, for the least money; null where the wishes conflict. */
  best: ShareOut | null;
  /** The best in which some role has other kinds; null where there is no other. */
  second: ShareOut | null;
  /** What the next hundred of the budget would buy; null without a budget, or where that is no better. */
  next: ShareOut | null;
  /** Where the next hundred buys nothing, the cheapest that is half a point better in the mean; null where no money brings that. */
  step: ShareOut | null;
  /** Wishes that conflict, none of which can be left out, and up to twelve in all the fewest; empty where all are met. */
  conflict: Wish[];
  /** Where wishes conflict, what all but the budget cost at least; null where no money meets them. */
  leastCost: number | null;
}
