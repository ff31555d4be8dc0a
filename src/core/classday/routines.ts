/** When a routine is gone through. */
export const ROUTINES = ['opening', 'fire', 'closing'] as const;
export type Routine = (typeof ROUTINES)[number];

/** A programme’s own lines, and the number it calls in an emergency; what it has not written is as usual. */
export type ClassWords = Partial<Readonly<Record<Routine, readonly string[]>>> & { readonly emergency?: string };

/**
 * The usual lines, where a programme has not written its own. Sources: the usual rules of food hygiene for groups (hands, hair, ill
 * people, surfaces; gel does not remove allergens) and of cooking over open fire with children.
 */
export const USUAL_ROUTINES: Readonly<Record<Routine, readonly string[]>> = {
  opening: [
    'Nobody here is ill: no sickness, diarrhoea or fever in the last two days',
    'Cuts are covered, hair is tied back, sleeves are up, jewellery is off, aprons are on',
    'Hands are washed with soap for 20 seconds and dried: gel does not remove allergens',
    'Tables and boards are washed and wiped dry',
    'Whoever must avoid something has been shown to all adults, with what to do',
    'The first-aid box, the fire blanket and the phone are where all adults know',
    'Hands again after raw meat, eggs, coughing, noses, phones and gloves: said to all',
  ],
  fire: [
    'Stations stand well away from the fire, with a line that nobody crosses alone',
    'Water or sand to put it out stands by, and water for burns',
    'The wind is looked at: smoke and sparks go away from the children',
    'Loose sleeves, scarves and hair are tied back',
    'One adult stays at the fire, and does nothing else',
  ],
  closing: [
    'Everything that was hot is off and out',
    'Leftovers are labelled and cold within the time of the local code, or thrown away',
    'Boards, knives and tools are washed, counted and put away',
    'Tables, taps and handles are wiped',
    'Every child went home with whom the family named',
    'All waste is out, and at a fire: ashes cold, ground as it was found',
  ],
};

/** The lines of a routine as this programme says them. */
export const linesOf = (own: ClassWords, routine: Routine): readonly string[] =>
  own[routine] && own[routine].length > 0 ? own[routine] : USUAL_ROUTINES[routine];

/** What a tick of a line is about; a line that was changed since is another. */
export const tickOf = (routine: Routine, line: string): string => `${routine}: ${line}`.slice(0, 190);
