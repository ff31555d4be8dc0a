/** Minutes of a class in which nobody cooks. */
export interface ClassMinutes {
  /** Hands, hair, tables and aprons, before anything else. */
  readonly opening: number;
  /** Somebody shows how, before the cooking begins. */
  readonly demonstration: number;
  readonly eating: number;
  readonly cleaning: number;
}

/** As ordinary classes have them; ours. Whoever shows something first says how long. */
export const USUAL_MINUTES: ClassMinutes = { opening: 10, demonstration: 0, eating: 15, cleaning: 15 };

/**
 * Minutes of a class that are left for cooking.
 *
 * @example
 * cookingMinutes(90, { opening: 10, demonstration: 5, eating: 15, cleaning: 15 }) //=> 45
 */
export const cookingMinutes = (minutes: number, { opening, demonstration, eating, cleaning }: ClassMinutes): number =>
  Math.max(0, minutes - opening - demonstration - eating - cleaning);
