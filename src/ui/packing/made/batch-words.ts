/** What is watched, in words. */
export const KIND_WORDS = {
  cool: 'cools',
  reheat: 'is heated through',
  hot: 'is kept hot',
  cold: 'is kept cold',
  stand: 'stands',
} as const;

export const STATE_WORDS = {
  going: 'on its way',
  look: 'look now',
  'too slow': 'too slow',
  reached: 'done',
  'put right': 'put it right now',
  'throw away': 'throw it away',
} as const;

export const FOOD_WORDS = {
  cooked: 'cooked',
  rice: 'cooked rice',
  room: 'mixed of what stood at room temperature',
} as const;
