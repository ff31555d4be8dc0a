/** Foods written a line each, or between commas. */
export const staplesOf = (text: string): string[] => [
  ...new Set(
    text
      .split(/[\n;,]/)
      .map((food) => food.trim().toLowerCase())
      .filter((food) => food !== ''),
  ),
];

/** A food a line with its grams: "carrot, 500 g"; kilograms count as a thousand grams. What has no amount is told by its service. */
export const boxOf = (text: string): { ingredient: string; grams: string }[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => {
      const [, food = line, amount = '', unit = 'g'] = /^(.*?)[\s,:]+([\d.]+)\s*(kg|g)?$/i.exec(line) ?? [];
      const grams = unit.toLowerCase() === 'kg' && amount !== '' ? String(Number(amount) * 1000) : amount;
      return { ingredient: food.trim().toLowerCase(), grams };
    });
