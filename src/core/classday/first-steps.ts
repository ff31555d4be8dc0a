import type { SafetyProfile } from '../recipes/steps/safe-temperatures';

/** What happened to somebody in class. */
export const HURTS = ['cut', 'burn', 'allergic reaction', 'choking', 'unwell', 'other'] as const;
export type Hurt = (typeof HURTS)[number];

/**
 * The usual first steps, in order; the family's own plan comes before them, and a trained first-aider decides. Source: common first-aid
 * guidance for the public.
 */
export const FIRST_STEPS: Readonly<Record<Hurt, readonly string[]>> = {
  cut: [
    'Gloves on. Press on it with a clean cloth, and hold it up.',
    'Rinse it under running water once it bleeds less, and cover it with a waterproof dressing.',
    'Deep, gaping, or bleeding after ten minutes of pressing: call for help.',
    'Throw away food that blood touched; wash the board, the knife and the table.',
  ],
  burn: [
    'Cool it under cool running water for 20 minutes, at once. No ice, butter or cream.',
    'Take off rings and clothes near it, but nothing that sticks.',
    'Cover it loosely with cling film or a clean plastic bag.',
    'Larger than the child’s hand, on face, hands or joints, or blistered: call for help.',
  ],
  'allergic reaction': [
    'Follow the family’s plan first. Trouble breathing, swollen tongue or throat, pale or floppy: it is severe.',
    'Severe: use their adrenaline pen now, and call the emergency number. Say “anaphylaxis”.',
    'Lie them down with legs raised; let them sit if breathing is hard. They do not stand or walk.',
    'No better after five minutes: a second pen, if there is one. Somebody stays with them.',
    'Keep what they ate, and its label. Nobody else eats of it.',
  ],
  choking: [
    'Can they cough? Let them cough.',
    'They cannot: up to five blows between the shoulder blades, then up to five thrusts above the navel (under one year: on the chest).',
    'Still choking: call the emergency number, and go on in turn.',
    'Afterwards a doctor looks at them, also when it is out.',
  ],
  unwell: [
    'Away from food and from heat, with an adult whom they know. Water in sips.',
    'Sick or diarrhoea: they go home; wash what they touched, and throw away food they handled.',
    'Whoever was ill stays away from food for the time that the local code sets.',
    'Confused, very pale, a stiff neck, or getting worse: call for help.',
  ],
  other: ['Make it safe first. Stay with them.', 'If in doubt, call the emergency number.'],
};

/** The number to call, where a programme has not written its own. */
export const emergencyNumber = (own: string, profile: SafetyProfile): string =>
  own || (profile === 'us' ? '911' : '999 or 112');
