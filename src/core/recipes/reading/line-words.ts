// The words around a food in a line: how it comes, how it is prepared, which part of it, what it lies in.
import { wordKey } from '../../reference/food-finder';

export const SIZES = /^(?:extra-?large|large|medium|small|big|medium-?sized?|large-?sized?|small-?sized?|baby)$/i;
const COLOURS =
  /^(?:red|green|yellow|orange|white|black|purple|brown|golden|pink|dark|pale|light|blue|striped|mixed|assorted)$/i;

/** A word before fruit or vegetables that says which colour it is of: the same food. Names of sorts are in a list: a custard apple is no apple. */
export const isColour = (word: string): boolean => COLOURS.test(word);

/** "red-skinned", "low-moisture", "stone-ground", "fresh-squeezed": whatever stands before the hyphen, it says how the food comes. */
const COMPOUND =
  /^[\p{L}-]+-(?:skinned|moisture|squeezed|ground|picked|grown|rolled|baked|cooked|roasted|cured|grain|cut|sized)$/iu;

export const isQualifier = (word: string) =>
  QUALIFIERS.has(wordKey(word)) ||
  SORTS.has(wordKey(word)) ||
  SIZES.test(word) ||
  COMPOUND.test(word) ||
  /^(?:and|&|very|well)$/i.test(word) ||
  (/ly$/.test(word) && !NO_MANNER.test(word));

/** Words in -ly that are part of a name. */
const NO_MANNER = /^(?:prickly|jelly|lily|holly)$/i;

const list = (words: string) => new Set(words.trim().split(/\s+/).map(wordKey));

/** Words that say how a food is prepared or what it is like, and leave it the same food. */
export const QUALIFIERS = list(`
  small medium large fresh ripe overripe raw cooked uncooked boneless skinless lean organic plain unsweetened sweetened
  cooled chopped diced cubed sliced grated shredded minced mashed halved quartered crumbled drained rinsed peeled trimmed cored seeded
  deseeded pitted stoned hulled husked shelled crushed ground toasted roasted melted softened sifted packed beaten whisked
  squeezed zested juiced torn flaked blanched steamed boiled poached fried grilled baked thawed defrosted frozen chilled cold
  warm hot boiling lukewarm iced tepid heaped level rounded scant whole split cut scrubbed washed cleaned thin thick fine coarse
  best-quality unpeeled unsalted salted skinned filleted smoked cured pressed soaked
  full-fat whole-milk snipped picked podded sieved strained stripped bruised cracked slivered flattened julienned spiralized
  spiralised riced shaved pared segmented scalded separated
  fast-action easy-blend easy-bake quick instant active
  leftover wide narrow old-fashioned stale day-old young tender firm soft crisp crunchy smooth free-range reduced-fat low-fat low-sodium
  firmly-packed lightly-beaten white-part-only natural pure speckled spotted scraped wilted
  homegrown home-grown heirloom heritage rainbow slender plump skinny farm-fresh farm local seasonal fairtrade biodynamic
  no-salt-added salt-free ditto jumbo good nice decent best proper decent-sized taco-size taco-sized fajita-size fajita-sized burrito-size burrito-sized soft-taco-size snack-size bite-size
`);

/** Parts of a food that are used, said behind it. */
export const PARTS = list(
  'juice zest peel rind whites white yolks yolk leaves leaf florets floret wedges flesh tops stems stem hearts',
);

const CITRUS = /^(?:lemon|lime|orange|grapefruit|mandarin|clementine|satsuma|tangerine|pomelo|yuzu)/;
const LEAFY =
  /^(?:fresh|dried) (?!figs|fruit|pineapple)|mint|basil|bay|spinach|lettuce|cabbage|kale|chard|choi|curry|sprout|rocket|cress|salad|chicory|endive|radicchio|greens|sage|tea|gelatine|cavolo/;

/** What a part is one of: the leaves of mint are mint, those of a tomato are no tomato. The parts not named here are any food's own. */
const PART_OF: readonly (readonly [part: RegExp, foods: RegExp])[] = [
  [/^(?:juice|zest|peel|rind)$/, CITRUS],
  [/^(?:white|yolk)s?$/, /^egg|leek|spring onion/],
  [/^leaf$/, LEAFY],
  [/^stem$/, /^fresh |broccoli|asparagus|chard|kale|choi|mushroom|lemongrass|rhubarb|celery/],
  [/^tops?$/, /spring onion/],
  [/^hearts?$/, /lettuce|celery|artichoke|cabbage|palm/],
];

/** Whether a word behind a food names a part of it, and makes no other food of it. */
export const isPartOf = (word: string, food: string): boolean => {
  const key = wordKey(word);
  const only = PART_OF.find(([part]) => part.test(key));
  return PARTS.has(key) && (!only || only[1].test(food));
};

/** Pieces that stand behind the food they count. */
export const PIECE_WORDS: ReadonlyMap<string, string> = new Map(
  Object.entries({
    clove: 'clove',
    bulb: 'head',
    head: 'head',
    stalk: 'stalk',
    stick: 'stalk',
    rib: 'stalk',
    slice: 'slice',
    sprig: 'sprig',
    fillet: 'each',
    breast: 'each',
  }),
);

/** What a food lies in when it is bought: said of it, and no second food. */
export const PACKED_IN =
  /\b(?:in|with) (?:(?:its|their|own|spring|salted|natural|cold|cool|warm|hot|boiling|running|clean|fresh|light|heavy|unsweetened|tomato|extra virgin|olive|sunflower|vegetable|rapeseed) )*(?:water|brine|oil|juices?|syrup|skins?|stones?|bones?|shells?|stems?|leaves|tops?|stalks?)\b/giu;

/** "70% cocoa", "5% fat": how strong it is. */
export const SHARE =
  /\b(?:at least |min(?:imum)?\.? |about )?\d{1,3} ?% (?:cocoa|cacao|fat|meat|fruit)(?: solids)?\b/giu;

/** Forms it is cut into, said behind it: "pecan halves", "pancetta cubes". */
export const FORMS = list(`
  halves half cubes cube chunks chunk pieces piece strips strip sticks ribbons rings shreds shards curls spears batons matchsticks
  lardons coins rounds triangles segments portions steaks kernels kernel niblets bits
`);

/** Where and which sort: the same food. */
const SORTS = list(`
  kent jap sebago kipfler packham navel valencia cara eureka meyer honeycrisp mcintosh cox jazz campari vine-ripened cos
  english lebanese persian continental telegraph mini baby spanish italian french medjool deglet maris piper edward desiree charlotte
  yukon gold russet bramley gala fuji braeburn granny smith hass kalamata roma vine heirloom beefsteak romano pointed
  vidalia conference williams jersey royal king castelvetrano anjou bosc fuerte alphonso nantes chantenay cavendish
  thick-cut thin-cut fat chunky unwaxed waxed skin-on bone-in oven-ready additive-free sustainable fairtrade fair-trade
  light lite low-sodium low-salt reduced-sodium reduced-salt no-salt low-sugar reduced-sugar no-sugar less-sugar less-salt lower-salt sugar-free
  salt-free sodium-free fat-free lower-fat extra-lean extra-fine extra-ripe extra-virgin extra-mature extra-firm lightly-salted
  corn-fed barn outdoor-reared line-caught wild-caught farmed british american australian scottish irish welsh new-season
  truss large-flake fine-cut finely-milled hand-cut fresh-baked freshly-baked day-old peeled-and-deveined ready-made ready-cooked
  half-fat lower-salt casings casing
  dutch-process dutch-processed dutched free-range cold-pressed grass-fed
  refrigerated unbaked baked reserved packed scraped boned deboned parboiled part-baked pre-cooked precooked unpeeled pitted washed
  powdered
  leveled levelled spooned mild sharp strong mature ripened aged good-quality decent cheap everyday basic quality best finest proper nice lovely rindless round
`);

/** Words in -ing that are foods themselves, and say nothing of how another comes. */
const FOODS_IN_ING =
  /^(?:seasoning|dressing|stuffing|shortening|icing|frosting|pudding|topping|coating|filling|herring|dumpling|spring|king|wing)s?$/i;

/** "spooned", "thinly", "lengthways": how it is done, whatever word it is. */
const isManner = (word: string) =>
  (word.length > 4 && /(?:ed|ly|ways|wise)$/i.test(word) && !NO_MANNER.test(word)) ||
  (word.length > 5 && /ing$/i.test(word) && !FOODS_IN_ING.test(word));

/** Words that say how, how much, where and what for; they name no food and none of them adds one. */
const SAID_WORDS = list(`
  a an the of or and with without in into to for from at on as by until about approximately roughly around plus per if it its
  their each any some more extra optional divided needed desired required serve serving served garnish garnishing decorate
  decoration decorating finish finishing dusting dust drizzle drizzling greasing grease frying fry brushing brush rolling roll
  sprinkling sprinkle cooking baking topping dipping coating tossing use using used see note recipe below above method tip such
  like your own choice favourite favorite preferably ideally well very just only not too you can be have has been that which is
  are was were lot lots little bit few piece pieces chunk chunks strip strips ring rings round rounds wedge wedges cube cubes
  stick sticks matchstick matchsticks baton batons ribbon ribbons half halves quarter quarters third thirds dice slice slices
  bite-sized bite sized size inch inches cm mm thick thickness long length lengthways lengthwise crosswise crossways across
  diagonal diagonally side sides end ends top tail tailed topped root trim skin skins skin-on bone bones bone-in stone stones pit
  pits seed seeds core cores stalk stalks stem stems shell shells fat rind crust crusts crustless outer inner tough woody hard
  leaf leaves picked pulled stripped separated separate discarded discard removed remove reserved reserve saved save kept keep
  taste temperature room room-temperature overnight hour hours minute minutes min mins day days night time ahead advance
  overripe ripe under underripe green red yellow orange white black brown purple dark light pale golden mixed assorted
  g kg mg ml l dl oz lb lbs cup cups tbsp tsp tablespoon tablespoons teaspoon teaspoons pint pints litre litres liter liters
  total weight net gross dry wet raw cooked cooled cool cold hot warm warmed heated reheated fridge freezer frozen thawed
  box pack packet can tin jar bag tub bunch handful pinch dash knob sprig head bulb clove cloves ear ears
  strained pressed squeezed pureed puréed blended whizzed processed pulsed ground milled freshly finely coarsely roughly thinly
  thickly lightly firmly loosely tightly evenly gently quickly rubbed bruised smashed bashed cracked broken snapped scored slit pricked
  pierced butterflied flattened pounded tenderised tenderized sliced shaved julienned spiralised spiralized riced diced slivered
  flaked toasted roasted charred grilled barbecued fried boiled parboiled par-boiled blanched steamed poached braised stewed
  simmered caramelised caramelized softened melted browned dry-roasted dry-fried soaked steeped rehydrated reconstituted
  sprouted hulled husked dehusked shelled podded topped-and-tailed hulls washed dried patted wiped rinsed drained scrubbed
  scalded salted unsalted sweetened unsweetened sifted sieved whisked beaten whipped separated yolk yolks white whites
  lightly-beaten stiff peaks soft firm set chilled freeze-dried vacuum-packed ready-cooked ready-made ready-to-eat ready shop-bought
  store-bought homemade home-made good best quality good-quality best-quality high low fat-free full-fat low-fat reduced-fat
  semi-skimmed skimmed whole whole-wheat whole-grain multigrain multi-grain husks husk fronds colour colours color colors wholegrain wholewheat wholemeal organic free-range local seasonal fresh grass-fed lean rindless
  boned deboned de-boned boneless skinless filleted gutted scaled cleaned deveined de-veined peeled unpeeled trimmed cored
  deseeded de-seeded seeded unseeded seedless pitted destoned de-stoned stoned zested juiced hollowed scooped opened unwrapped
  cut chopped torn shredded grated crumbled crushed mashed minced cubed halved quartered split left wholes large-ish medium-sized
  heaped heaping level rounded scant generous good full packed loosely-packed firmly-packed standard regular
  zest juice peel flesh floret florets heart hearts tender young old baby
  straight standing rested resting proved risen dissolved stirred shaken tossed folded mixed combined together separately
  first second third last one two three four five six eight ten twelve dozen couple several
  slow quick quick-cook easy-cook instant fast-action fast easy-blend active strong mild medium-hot sweet sour tart bitter
  smooth crunchy chunky coarse fine extra-fine superfine natural pure plain neutral flavourless flavorless
  excess all every another any whatever rest remaining
  liquid liquids out but yet still whole left packed pouch part parts over off kernels kernel away inside outside through each's thawing sheet sheets unpeeled together plenty worth lots
  please thanks ok fine-grained type variety kind brand similar equivalent alternatively else maybe more-or-less
  stripe stripes destrung de-strung unstrung shorn rid
  rib ribs vein veins spine spines membrane membranes string strings gill gills beard beards
  according packet instructions directions label stated
  even equal rough neat similar-sized evenly-sized up down apart back kind kinds middle centre center
  crosswise-cut sun-dried air-dried oven-dried day-old stale leftover
  juices also then
  fillet fillets breast breasts thigh thighs rasher rashers loin leg shoulder mince
  edible waxy floury all-purpose glaze glazing moon moons half-moons triangle triangles pan tray bowl mug plate julienned coins
  homegrown home-grown heirloom heritage rainbow slender stout plump skinny chubby crooked uneven same mix pile piles heap heaps
  aside taken brought brunoise julienne chiffonade concasse intact attached exposed petal petals layer layers tip tips crown bottom bottoms
  happy starchy mealy wrung spun tied bundled twine bind flat flat-leaf curly-leaf fibrous stringy yellowed blemished unblemished spotless prettiest
  largest smallest youngest freshest juiciest firmest thickest thinnest best-looking biggest nicest weighted lidded stacked fanned just-picked
  freshly-picked prepped unbrushed halal kosher fairtrade biodynamic farm farmers market season in-season supermarket own-brand ambient beforehand
  already lattice crinkle crinkle-cut thumbnail fingertip shard shards sliver slivers curl curls shaving shavings coarser finer thicker thinner
  slightly somewhat rather fairly quite nicely about-to-turn barely near nearly almost still-warm piping cuts cutting
  both caught wild-caught sushi-grade grade stoneground stone-ground swept short-grain portion portions before after between during
  spears ribboned fork knife spoon hand hands dissolving soften melting marinate marinating stirring scattering scatter sprinkled
`);

/** A word beside a food that says how it comes, and is neither another food nor a word that nothing is known of. */
export const isSaid = (word: string): boolean => SAID_WORDS.has(wordKey(word)) || isManner(word);
