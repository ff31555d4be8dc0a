import * as access from './access';
import * as buying from './buying';
import * as classday from './classday';
import * as closeout from './closeout';
import * as countdown from './countdown';
import * as crew from './crew';
import * as equipment from './equipment';
import * as handout from './handout';
import * as kits from './kits';
import * as messages from './messages';
import * as packing from './packing';
import * as plan from './plan';
import * as programme from './programme';
import * as recipes from './recipes';
import * as roll from './roll';
import * as work from './work';

/** Every table of the database, room by room: what a row refers to comes before it. */
export const TABLES = {
  ...access,
  ...programme,
  ...plan,
  ...countdown,
  ...recipes,
  ...roll,
  ...kits,
  ...buying,
  ...crew,
  ...packing,
  ...handout,
  ...classday,
  ...closeout,
  ...messages,
  ...work,
  ...equipment,
};
