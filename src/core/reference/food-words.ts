/** The words in which the reference table describes foods. */
export const AISLES = ['produce', 'bakery', 'dry', 'spices', 'cans', 'dairy', 'meat', 'frozen'] as const;
export const STORAGES = ['ambient', 'cold', 'frozen'] as const;
export const PERISHABLES = ['never', 'always', 'when cut', 'when opened', 'when thawed', 'when cooked'] as const;
export const PLATE_GROUPS = [
  'vegetable',
  'fruit',
  'grain',
  'whole grain',
  'protein',
  'dairy',
  'fat',
  'sugar',
  'other',
] as const;
/** Measures that a food is weighed in. */
export const MEASURES = ['cup', 'Tbsp', 'tsp', 'each', 'slice', 'clove', 'stalk'] as const;
