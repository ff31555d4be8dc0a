/** The words in which the reference table describes foods. */
export const AISLES = ['produce', 'bakery', 'dry', 'spices', 'cans', 'dairy', 'meat', 'frozen'] as const;
export const STORAGES = ['ambient', 'cold', 'frozen'] as const;
/** Where a food is kept, as one says it in a kitchen. */
export const KEPT: Readonly<Record<string, string>> = { ambient: 'cupboard', cold: 'fridge', frozen: 'freezer' };
/** Aisles as a list is headed by them. */
export const AISLE_TITLES: Readonly<Record<string, string>> = {
  produce: 'Vegetables and fruit',
  bakery: 'Bread',
  dry: 'Dry goods',
  spices: 'Spices',
  cans: 'Cans and jars',
  dairy: 'Dairy, eggs and tofu',
  meat: 'Meat and fish',
  frozen: 'Frozen',
};
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
