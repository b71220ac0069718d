/**
 * What is chosen from for joints and for what they join, apart from their schema: pages need these
 * and not the validation.
 */

/** The two ends of a joint: it is read from either. */
export const ENDS = ['first', 'second'] as const;
export type EndName = (typeof ENDS)[number];
export const otherEnd = (end: EndName): EndName => (end === 'first' ? 'second' : 'first');

/** How sound a part of the vehicle is, as far as anybody looked. */
export const CONDITIONS = ['unknown', 'sound', 'thinned', 'rusted', 'crushed'] as const;
export type Condition = (typeof CONDITIONS)[number];

/** Joints that hold and are not welded: a skin folded round its frame, bolts, rivets. */
export const FASTENED = ['hemmed', 'bolts', 'rivets'] as const;
export type Fastened = (typeof FASTENED)[number];

/** From which side of the vehicle's skin a joint can be reached as things stand. */
export const REACHES = ['both', 'outside', 'inside'] as const;
export type Reach = (typeof REACHES)[number];

/** Whether a joint is looked at once the vehicle is painted. */
export const SIGHTS = ['seen', 'hidden'] as const;
export type Sight = (typeof SIGHTS)[number];
