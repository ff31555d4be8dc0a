/** Containers written a line each: "lidded pot, 60 ml", "zip bag 1 l". What has no size is told by its service. */
export const containersOf = (text: string): { name: string; ml: string }[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => {
      const [, name = line, size = '', unit = 'ml'] = /^(.*?)[\s,:]+([\d.]+)\s*(ml|l)$/i.exec(line) ?? [];
      return { name: name.trim(), ml: unit.toLowerCase() === 'l' && size !== '' ? String(Number(size) * 1000) : size };
    });
