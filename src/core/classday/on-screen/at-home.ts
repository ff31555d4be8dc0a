import type { Inside } from '../../recipes/steps/safe-temperatures';
import type { PlannedStep } from '../../recipes/steps/step-plan';
import { INSTEAD } from '../set-out';

/** What the dishes of a class on screen ask of a home. */
export interface HomeNeeds {
  readonly heats: readonly string[];
  readonly tools: readonly string[];
  /** Dishes that must be probed before they are eaten. */
  readonly probed: readonly (Pick<Inside, 'kind' | 'said'> & { readonly title: string })[];
}

/** What a family said it has; what is left out nobody has asked. */
export interface Home {
  readonly heat?: readonly string[] | undefined;
  readonly tools?: readonly string[] | undefined;
}

export interface HomeLack {
  readonly what: string;
  /** '' where nothing will do. */
  readonly instead: string;
}

/** How homes call what steps ask for. */
const HOME_TOOL: Readonly<Record<string, string>> = {
  knife: 'sharp knife',
  grater: 'grater',
  blender: 'blender',
  thermometer: 'thermometer',
};
const HOME_HEAT: Readonly<Record<string, string>> = {
  hob: 'hob',
  oven: 'oven',
  grill: 'oven',
  microwave: 'microwave',
  fire: 'open fire',
};

/** Heat that can stand in for another at home. */
const OTHER_HEAT: Readonly<Record<string, readonly string[]>> = {
  hob: ['microwave'],
  microwave: ['hob'],
  'open fire': ['hob', 'oven'],
};

/** What steps ask of a home; a kettle, bowls, pans and boards are taken to be there. */
export function needsAtHome(
  steps: readonly Pick<PlannedStep, 'heat' | 'tools'>[],
  probed: HomeNeeds['probed'],
): HomeNeeds {
  const heats = [...new Set(steps.flatMap(({ heat }) => HOME_HEAT[heat] ?? []))];
  const tools = new Set(steps.flatMap((step) => step.tools.flatMap((tool) => HOME_TOOL[tool] ?? [])));
  if (probed.length > 0) tools.add('thermometer');
  return { heats, tools: [...tools], probed };
}

/**
 * What a family lacks, with what will do.
 *
 * @example
 * lackingAtHome({ heats: ['oven'], tools: ['grater'], probed: [] }, { heat: ['hob'], tools: [] })
 * //=> { isAsked: true, lacks: [{ what: 'oven', instead: '' }, { what: 'grater', instead: 'cut it finely with a knife instead: older children, a few minutes more' }] }
 */
export function lackingAtHome(
  needs: HomeNeeds,
  home: Home,
): { readonly isAsked: boolean; readonly lacks: readonly HomeLack[] } {
  const { heat, tools } = home;
  const noHeat = needs.heats.filter((each) => heat !== undefined && !heat.includes(each));
  const noTool = needs.tools.filter((each) =>
    // A thermometer that nobody has told of is not there.
    each === 'thermometer' ? !tools?.includes(each) : tools !== undefined && !tools.includes(each),
  );
  return {
    isAsked: heat !== undefined && tools !== undefined,
    lacks: [
      ...noHeat.map((what) => ({
        what,
        instead: (OTHER_HEAT[what] ?? []).find((other) => heat?.includes(other)) ?? '',
      })),
      ...noTool.map((what) => ({ what, instead: INSTEAD[what === 'sharp knife' ? 'knife' : what] ?? '' })),
    ],
  };
}
