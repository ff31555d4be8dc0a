// Ways of writing that stand for plainer ones: abbreviations, glued units, the marks of a scan, headings and remarks around a line.
import { isColour } from './line-words';

/** Abbreviations of whole words, each said plainly. A word is known by its letters alone, whatever its case. */
const SHORT: Readonly<Record<string, string>> = {
  lg: 'large',
  lge: 'large',
  lrg: 'large',
  sm: 'small',
  sml: 'small',
  med: 'medium',
  pkg: 'package',
  filet: 'fillet',
  filets: 'fillets',
  veg: 'vegetable',
  pkt: 'packet',
  pkts: 'packets',
  pkgs: 'packages',
  ctn: 'carton',
  env: 'sachet',
  envelope: 'sachet',
  envelopes: 'sachets',
  pwdr: 'powder',
  pwd: 'powder',
  bkg: 'baking',
  choc: 'chocolate',
  marg: 'margarine',
  doz: 'dozen',
  oleo: 'margarine',
  ched: 'cheddar',
  parm: 'parmesan',
  parms: 'parmesan',
  evoo: 'olive oil',
  'w/': 'with',
  'w/o': 'without',
  n: 'and',
  "n'": 'and',
  "'n'": 'and',
  '’n’': 'and',
  sl: 'slices',
  brn: 'brown',
  cinn: 'cinnamon',
  mozz: 'mozzarella',
  'soda.': 'soda',
  punnet: 'pack',
  punnets: 'packs',
  pot: 'tub',
  pots: 'tubs',
  tray: 'pack',
  ea: 'each',
  temp: 'temperature',
  sep: 'separated',
  toms: 'tomatoes',
  opt: 'optional',
  ingred: 'ingredients',
  suger: 'sugar',
  sugr: 'sugar',
  flor: 'flour',
  buter: 'butter',
  onoin: 'onion',
  onoins: 'onions',
  galic: 'garlic',
  cinamon: 'cinnamon',
  vinager: 'vinegar',
  vineger: 'vinegar',
  v: 'very',
};

/** "lemon pot" is no tub: these words are short for something only behind a number or a measure. */
const BEHIND_NUMBER = new Set(['sl', 'pot', 'pots', 'tray', 'sm', 'med', 'env', 'n', 'v']);

/** Two words that say one thing, joined so that they are read as one. */
const JOINED: readonly (readonly [RegExp, string])[] = [
  [/^s ?(?:&|\+|and|n) ?p(?=$|,| to taste| \()/i, 'salt and pepper'],
  [/\bhalf ?(?:&|-and-|n|'n') ?half\b/gi, 'half and half'],
  [/\bnests?(?: of)? (?=[^,]*noodles)/gi, 'blocks '],
  [/\bspring ?water\b/gi, 'water'],
  // "2 onions - 1 chopped, 1 sliced"
  [/^(\d+ (?:\p{L}+ )?\p{L}+) [-–] (?=(?:\d|one|two|half) \p{L}+ )/iu, '$1, '],
  [/\btom\.? (?=pur[eé]e|paste|sauce|ketchup)/gi, 'tomato '],
  // "orzo x 300g", "chicken thighs x 6 (skin on)"
  [
    /^(\p{L}[\p{L} -]*?) [x×] ?(\d[\d./]*(?: ?(?:k?g|m?l|tbsps?|tsps?|cups?|cloves?|tins?|cans?|bunch(?:es)?|oz|lbs?)\b)?)(?= |$|,)/iu,
    '$2 $1',
  ],
  // "Chopped tomatoes 3 x 2.5kg tin"
  [
    /^(\p{L}[\p{L} ,-]*?),? (\d+) ?[x×] ?(\d[\d.]* ?(?:k?g|m?l|oz)) ?(tin|can|jar|pack|bag|carton)s?$/iu,
    '$2 x $3 $4 $1',
  ],
  // "1 knob ginger about 4cm"
  [
    /^(?:1|an?|one) (?:knob|piece|thumb)(?: of)? (?:fresh )?(ginger|galangal|turmeric),? \(?(?:about |approx\.? |roughly )?(\d[\d.]*) ?-?(cm|inch)(?:es)?\)?/i,
    '$2 $3 fresh $1',
  ],
  [/\b(?:ice(?:[- ]cold)?|iced) water\b/gi, 'cold water'],
  [/\bnatural bio\b|\bbio (?=yog)/gi, 'natural '],
  // "1 cm slice of ginger"
  [
    /^(\d[\d.½¼¾]*)[- ]?(cm|inch) (?:slice|coin|disc)s?(?: of)? (?=(?:fresh )?(?:ginger|galangal|turmeric)\b)/i,
    '$1 $2 ',
  ],
  // Cooked, it is another food than the meal it is made of.
  [/\bready[- ](?:made|cooked) polenta\b/gi, 'polenta block'],
  [/\b(?:\p{Lu}[\p{L}]+ )?\p{Lu}\p{L}+-style /gu, ''],
  [/^(.+?\b(?:lemon|lime|orange))['’]?s worth of (zest)\b/i, '$1, $2'],
  [/\b(?:of )?(?:your|our|a) favou?rite\b/gi, ''],
  [/^(\d+ \p{L}+): (?=\d \p{L}+, \d )/iu, '$1, '],
  [/\btomato sauce \(ketchup\)/gi, 'tomato ketchup'],
  [/\b(flour),? \(?type \d{3,4}\)?/gi, '$1'],
  // Grams and millilitres have no thousandths, kilograms and litres no thousands: "1.000 g", "1 000 ml", "1,250 kg"; "2 200 g tins" are two of them.
  [/^(\d{1,3})[.,](\d{3}) ?(g|gr|grams?|ml)\b/i, '$1$2 $3'],
  [/^(\d{1,3}) (000) ?(g|gr|grams?|ml)\b/i, '$1$2 $3'],
  [/^(\d{1,2}),(\d{3}) ?(kg|kilos?|l|litres?|liters?)\b/i, '$1.$2 $3'],
  [/^(?:exactly|precisely|just) (?=[\d½⅓⅔¼¾])/i, ''],
  [/^(\d+) \((?:one|two|three|four|five|six|eight|ten|twelve)\) /i, '$1 '],
  [/^\.(?=\d)/, '0.'],
  [/\b1\/3rds?\b/gi, '1/3'],
  [/^(?:an?|one) (?:fourth|quarter)(?: of (?:an?|one))? /i, '1/4 '],
  [/^(?:an?|one) eighth(?: of (?:an?|one))? /i, '1/8 '],
  [/^(\d[\d.]* ?(?:k?g|m?l|oz)) ?[x×] ?(\d+) (?=(?:tins?|cans?|packs?|jars?) )/i, '$2 x $1 '],
  [/^(\d[\d.]* ?(?:k?g|m?l|oz)) [x×] (\d+) (?=\p{L})/iu, '$2 x $1 '],
  [/\brice, long[- ]grain\b/gi, 'long-grain rice'],
  [/\bold fashioned\b/gi, 'old-fashioned'],
  [/ of (?:your )?choice\b/gi, ''],
  [/ \((?:approx\.?|approximately|about|roughly)\)/gi, ''],
  // "3 tomatoes pureed"
  [
    /(?<=^\S+ (?:large |small |medium |ripe )?\p{L}{4,}s) (pur[eé]ed|grated|chopped|sliced|diced|peeled|mashed|halved|quartered|crushed|minced|beaten|shredded|cubed)$/giu,
    ', $1',
  ],
  // "Salt, pepper", "salt pepper"
  [
    /^((?:sea |kosher |table )?salt)(?:,|\/| -)? (?=(?:(?:freshly )?(?:ground|cracked|milled) )?(?:black |white )?pepper$)/i,
    '$1 and ',
  ],
  [/\ba (?:wee bit|wee|tad|touch|smidge(?:n|on)?|scrap|lick) (?=more|extra|for|to)/gi, 'a little '],
  [/\b5[- ]spice\b/gi, 'five spice'],
  // A scan takes the tail of a g for that of a q.
  [/(?<=\p{L})q(?![u\p{Lu}])/gu, 'g'],
  [
    /, ((?:about|approx\.?|roughly|around) (?:\d[\d./ ]*|[½⅓⅔¼¾]) ?(?:cups?|tbsps?\.?|tsps?\.?|tablespoons?|teaspoons?|g|kg|ml|oz|lbs?))$/gi,
    ' ($1)',
  ],
  [/\b(low|reduced|lower|no|less) (sodium|salt|fat|sugar)\b/gi, '$1-$2'],
  [/\b(sodium|salt|fat|sugar|dairy|lactose)[ -]free\b/gi, '$1-free'],
  [/\b(free|grass|corn|cold) (range|fed|pressed)\b/gi, '$1-$2'],
  [/\bextra (firm|virgin|lean|mature|ripe|fine)\b/gi, 'extra-$1'],
  [/\bready[ -]cooked\b/gi, 'cooked'],
  [/\b(ready)[ -](rolled|made|to[ -]eat)\b/gi, '$1-made'],
  [/\bs\.? ?r\.? (flour)\b/gi, 'self-raising $1'],
  [/\bcuts? up\b/gi, 'cut'],
  // "neutral-flavored oil"
  [/\b(neutral|mild|plain)[- ]flavou?red (?=oil\b)/gi, '$1 '],
  [/\b(\p{L}+) but (?:still )?(?=\p{L}+ \p{L})/giu, '$1 and '],
  [/\b(fast|quick|rapid) (action|rise)\b/gi, '$1-$2'],
  // By the spoon it is no drink, by weight no meal.
  [/\b(tsps?\.?|teaspoons?|tbsps?\.?|tbs?\.?|tablespoons?|t\.?) ((?:light |dark )?soy)(?=$|,| \()/gi, '$1 $2 sauce'],
  [/\b(tsps?\.?|teaspoons?|t\.?) soda\b(?! water)/gi, '$1 baking soda'],
  [/\bb\.? ?soda\b/gi, 'baking soda'],
  [/\bb\.? ?p(?:owder|wdr)?\.?(?= |$)/gi, 'baking powder'],
  [/\b(?:minced|ground) meat(?: \(| of | from )(beef|pork|lamb|turkey|chicken)\)?/gi, 'minced $1'],
  [/\b(lbs?\.?|pounds?|oz\.?|k?g) hamburger(?: meat)?\b(?! bun)/gi, '$1 minced beef'],
  // "85% lean ground beef", "2% milk" keeps its share.
  [/\b\d{2} ?%(?:[- ](?:lean|fat)\b| or leaner\b| lean or leaner\b)/gi, 'lean'],
  [/\b[789]\d\/[123]?\d(?= (?:lean )?(?:ground|minced) )/gi, 'lean'],
  [/,? (?:(?:of|in) )?(?:two|three|mixed|different|assorted|various) colou?rs\b/gi, ', mixed'],
  [/\btruss (?=tomato)/gi, ''],
  [/ ?\((?:type|grade|no\.?|size) ?[\p{L}]?\d+\)/giu, ''],
  [/^(?:an? )?(few|couple of|\d+) (?:good )?(?:grinds?|grindings?|turns?|twists?|cracks?) of\b/i, 'some'],
  [/^(?:an? )?(?:good |generous )?(?:grind|grinding|turn|twist|crack) of\b/i, 'some'],
  // "4 thick slices of bread"
  [/^(\S+) (?:thick|thin|large|medium|small|generous) (slices? )/i, '$1 $2'],
  [/^(\S+) (?:fat|plump|juicy) (?=cloves?\b)/i, '$1 '],
  [/\btable ?spoons?(?:ful)?s?(?: of)?\b/gi, 'tbsp'],
  [/\btea ?spoons?(?:ful)?s?(?: of)?\b/gi, 'tsp'],
  [/\b(?:as per|according to) (?:your )?taste\b/gi, 'to taste'],
  [/^([½⅓⅔¼¾]|1\/[234]) an? (?=\p{L})/iu, '$1 '],
  [/^(\S+) (cups?|tbsps?|tsps?|litres?|pints?|kilos?|pounds?) and (?:a|one) half(?: of)? /i, '$1 and a half $2 '],
  // "400g/14oz tin"
  [/(\d ?g) ?\/ ?\d[\d½¼¾.]* ?oz (?=(?:tin|can|jar|pack|packet|bag)s?\b)/i, '$1 '],
  [/\bcupfuls?(?: of)?\b/gi, 'cup'],
  [/^(\d+|\d*[½¼¾]) ?# ?/, '$1 lb '],
  [/\bvacuum[- ]packed\b/gi, 'packed'],
  [/\binc(?:l\.?|luding|\.)(?= )/gi, 'with'],
  [/\brind and juice\b/gi, 'zest and juice'],
  [
    /\b(stock|broth) made (?:up )?(?:from|with|using) (?:an? |[2-9] |two )?(?:good |low-salt )?(?:stock )?(?:cubes?|powder|concentrate)\b/gi,
    '$1',
  ],
  // "3 yolks", "the whites of 2 eggs"
  [/^((?:\d+|an?|one|two|three|four|five|six) (?:(?:large|medium|small) )?)(yolk|white)(s?)(?=$|,)/i, '$1egg $2$3'],
  [/((?:\+|,|\band|\bplus) \d+) (?:(?:extra|more|additional|further) )?(yolk|white)(s?)\b/gi, '$1 egg $2$3'],
  [/^(?:the )?(yolk|white)s? of (.+? eggs?)\b/i, '$2 $1s'],
];

const UNITS =
  'cups?|c\\.|tbsps?|tsps?|tablespoons?|teaspoons?|lbs?|oz|ounces?|pounds?|pints?|quarts?|g|kg|ml|cans?|pkgs?|packages?';

/** Spoons said by what they hold, a pack said by what is in it, a remark behind a dash. */
const ROUNDABOUT: readonly (readonly [RegExp, string])[] = [
  // "1 (3-inch) piece ginger"
  [
    /^(?:one|an?|1) \((\d[\d.½¼¾]*)[- ]?(inch|in\.?|cm)(?:es)?\) (?:piece|knob|length|stick|thumb|chunk)s?(?: of)? /i,
    '$1 $2 ',
  ],
  // "a 2-inch cinnamon stick": how long a stick is, is the stick's own.
  [/^(\S+) \d[\d.½¼¾]*[- ]?(?:inch|in\.?|cm) (?=cinnamon sticks?\b)/i, '$1 '],
  // "2 fillets of cod", "1 cube veg bouillon"
  [/^(\S+) (fillet|breast|thigh|drumstick|wing|leg|chop|steak)s? of (\p{L}+)/iu, '$1 $3 $2s'],
  [/^(\S+) cubes? (?:of )?((?:\p{L}+\.? )?(?:bouillon|stock))\b/iu, '$1 $2 cube'],
  [/^(\S+) stems? (?:of )?(?=celery|rhubarb|lemongrass)/i, '$1 stalk '],
  [/^(\S+) crowns? (?:of )?(?=broccoli|cauliflower)/i, '$1 head '],
  [/^(\S+) rounds? (?:of )?(?=(?:pitt?a|naan|flat ?bread|lavash|roti|chapatt?i)\b)/i, '$1 '],
  [/^(\S+) rolls? (?:of )?(?=(?:[\p{L}-]+ )*pastry\b)/iu, '$1 pack '],
  // "2 EL oil": German spoons, which a translation leaves.
  [/^(\S+) EL (?=\p{L})/u, '$1 tbsp '],
  [/^(\S+) TL (?=\p{L})/u, '$1 tsp '],
  // "1 lg can tomatoes": how large it is stands behind, or nobody knows.
  [
    /^(\S+) (?:lg|lge|large|sm|sml|small|med|medium)\.? (?=(?:can|tin|jar|box|pkg|package|pack|packet|bag)s?\b)/i,
    '$1 ',
  ],
  [/^(\S+) sticks? of cinnamon\b/i, '$1 cinnamon stick'],
  [/^plenty of /i, 'some '],
  // "smoked paprika, a pinch"
  [/^(\p{L}[\p{L} ]+), (an? (?:(?:small|large|good|generous) )?(?:pinch|handful|dash|sprig|bunch))$/iu, '$2 of $1'],
  // "2 packs of 500 g flour"
  [
    /^(\d+) (?:packs?|packets?|packages?|bags?|box(?:es)?|bottles?|jars?) of (\d[\d.]* ?(?:k?g|m?l|oz|lbs?)\b) (?=\p{L})/iu,
    '$1 x $2 pack ',
  ],
  [
    /^(?:one|an?|1) (\d[\d.½¼¾]*(?: ?(?:to|-|–) ?\d[\d.½¼¾]*)?)[- ]?(lb|pound|kg|kilo)s? (?:whole )?(chicken|turkey|duck)(?= ?(?:\(|,|$))/i,
    '$1 $2 whole $3',
  ],
  // "1 chicken (about 1.5 kg)": by the piece it is the whole bird.
  [
    /^(\d+|an?|one) ((?:large|medium|small|free-range|roasting) )?(chicken|turkey|duck)(?= ?(?:\(|,|$))/i,
    '$1 $2whole $3',
  ],
  // What is left over of a meal was cooked.
  [
    /\bleft-?over (?=(?:\p{L}+ )?(?:rice|pasta|noodles|quinoa|couscous|lentils|beans|chicken|turkey|barley|bulgur)\b)/iu,
    'cooked ',
  ],
  [/^(\S+ (?:lbs?|pounds?|oz|ounces?|tsps?|tbsps?|k?g)\.?) gr(?:d|nd)?\.? (?=\p{L})/iu, '$1 ground '],
  [/^(\S+) ?[x×] ?15 ?ml (?:table)?spoons?(?: of)?\b/i, '$1 tbsp'],
  [/^(\S+) ?[x×] ?5 ?ml (?:tea)?spoons?(?: of)?\b/i, '$1 tsp'],
  [/^(?:an? |1 )?(?:pack|packet|package|bag|tray|box|net) of (?=\d+ \p{L})/iu, ''],
  [/(?<=[\p{L})]) [-–—] (?=\p{L})/gu, ', '],
  [/^(half an?|\S+) cubes? (?:of )?(?=(?:fresh )?(?:yeast|tofu)\b)|^(\S+) cubes? of /i, '$1$2 block of '],
  // "One 2-inch piece of ginger", "a 2.5cm knob"
  [
    /^(?:one|an?|1) (\d[\d.½¼¾]*)[- ]?(inch|cm)(?:es)?[- ](?:long )?(?:piece|knob|length|stick|thumb|chunk)(?: of)? /i,
    '$1 $2 ',
  ],
  // "One 2-lb squash" is weighed; "one 8-oz package" is a pack.
  [
    /^(?:one|an?|1) (\d[\d.,½¼¾]*)-(lb|pound|kg|kilo)s?\b\.? (?![^,(]*\b(?:can|tin|pack|packet|package|bag|box|jar|block|carton)s?\b)/i,
    '$1 $2 ',
  ],
  [/^(\S+) in\. (?=\p{L})/iu, '$1 inch '],
  [/^(\S+ )?(?:thumb|walnut)[- ]sized? (?:piece|knob|chunk|lump)s?(?: of)? /i, '$1thumb of '],
  // "Eggs x 3"
  [/^(\p{L}[\p{L} ]*?) ?[x×] ?(\d+)$/iu, '$2 $1'],
  [/^((?:juice|zest|rind)(?: and (?:juice|zest))?)(?: from)? (?=\d|[½¼]|half|an? |one |two )/i, '$1 of '],
  // "4 8-inch flour tortillas"
  [/^(\d+) (\d+)[- ]?(inch|cm) (?=(?:[\p{L}-]+ )*(?:tortilla|pitt?a|wrap|crust|baguette|roll)s?\b)/iu, '$1 ($2 $3) '],
  // "6 potatoes, about 3 lbs", "half a squash, about 500g, peeled": what all of it weighs
  [
    /, ?(?:about |around |approx\.? |approximately |roughly |ca?\.? )?(\d[\d.,½¼¾]* ?(?:g|kg|gr|grams?|oz|ounces?|lbs?|pounds?)\.?)(?: (?:in )?total| altogether| in all)?(?=,|$)/i,
    ' ($1)',
  ],
  // "4 salmon fillets, 120g each"
  [/, ?(?:about )?(\d[\d.,/]* ?(?:g|kg|oz|lb|ml)) each$/i, ' ($1 each)'],
  [/\b(feta|cheddar|parmesan|mozzarella|ricotta|halloumi|gouda|brie|swiss)-(?:style|type) cheese\b/gi, '$1 cheese'],
  [/ ?\b(?!greek|cream)\p{L}+-(?:style|type)\b/giu, ''],
  [/\b(beef|lamb|pork) for (?:a )?stew(?:s|ing)?\b/gi, 'stewing $1'],
  [/\bgreek-style\b/gi, 'greek'],
  [/,? ?\bq\.? ?b\.?$|,? ?\bquanto basta$/i, ' to taste'],
  [/ ?\(?\b[3-5][ -]?star\b\)?/gi, ' lean'],
  // "coconut milk 1 can 400ml"
  [/^(\p{L}[\p{L} ]+?) (\d+) (cans?|tins?|packs?|packets?|jars?|bags?) \(?(\d+ ?(?:k?g|ml|oz))\)?$/iu, '$2 x $4 $3 $1'],
  // "tinned tomatoes 6 x 400 g"
  [/^(\p{L}[\p{L} ]+?),? (\d+) ?[x×] ?(\d+ ?(?:k?g|ml|oz))(?: (cans?|tins?|packs?|jars?|bags?))?$/iu, '$2 x $3 $4 $1'],
  // "1 onion of about 150 g"
  [/ (?:of|weighing) (?:about |around |approx\.? |ca\.? )?(\d[\d.,/]* ?(?:g|kg|gr|oz|lb)\.?(?: each)?)$/i, ' ($1)'],
];

/** What a scan makes of a 1 before a measure, and where it parts or glues figures. */
const SCANNED: readonly (readonly [RegExp, string])[] = [
  [/^[Oo](?=[.,]\d)/, '0'],
  [/(?<=\p{L})1(?=\p{L})/gu, 'l'],
  [/(?<=\p{L})0(?=\p{L})/gu, 'o'],
  [/(?<=\d ?)Ib(?=s?\b)/g, 'lb'],
  [/\boI(?=ive\b)/g, 'ol'],
  [/\b0(?=il\b|ats?\b|nion)/gi, 'o'],
  [/^(\d+) ?[&+] ?(?=\d ?\/ ?\d)/, '$1 '],
  // "Sugar ....... 50 g"
  [/ ?(?:\.{3,}|…+|_{3,}) ?(?=\d|[½⅓⅔¼¾])/gu, ' '],
  [new RegExp(`^[Il|] ?(?=(?:${UNITS})\\b\\.?)`, 'i'), '1 '],
  [/^[Il|] (?=\p{L})/u, '1 '],
  [/^[Il|] ?\/ ?(?=[2348]\b)/, '1/'],
  [/^(\d[\d /]*[ ½⅓⅔¼¾]?c),(?= )/i, '$1'],
  [/(\d) ?\/ (\d)/g, '$1/$2'],
  [/(\d) \/(\d)/g, '$1/$2'],
  [/([½⅓⅔¼¾⅛⅜⅝⅞])(?=\p{L})/gu, '$1 '],
];

/**
 * A line in plainer words, so that the grammar knows only those.
 *
 * @example
 * spellOut('1 lg onion chopped') //=> '1 large onion chopped'
 * spellOut('l cup sugar') //=> '1 cup sugar'
 * spellOut('8oz/225g S.R. flour') //=> '8oz/225g self-raising flour'
 */
export function spellOut(line: string): string {
  let text = inTwoWays(ofTwoColours(line));
  for (const [pattern, plain] of [...SCANNED, ...ROUNDABOUT, ...JOINED]) text = text.replace(pattern, plain);
  const words = text.split(' ');
  return words
    .map((word, at) => {
      const key = word.toLowerCase().replace(/[.,]$/, '');
      const plain = Object.hasOwn(SHORT, key) ? SHORT[key] : undefined;
      if (plain === undefined) return word;
      if (BEHIND_NUMBER.has(key) && key !== 'n' && !/\d|[½⅓⅔¼¾⅛]/u.test(words[at - 1] ?? '')) return word;
      if (key === 'n' && at === 0) return word;
      return word.endsWith(',') ? `${plain},` : plain;
    })
    .join(' ');
}

const HALVES = new Set(['½', '1/2', 'half a', 'half']);
const counted = (number: string): number => (HALVES.has(number.toLowerCase()) ? 0.5 : Number(number) || 1);

/** "1 red and 1 yellow pepper" is two peppers, "½ red and ½ yellow pepper" one. */
const ofTwoColours = (line: string): string =>
  line.replace(
    /^(½|1\/2|half an?|half|\d|an?|one) (\p{L}+),? (?:and|&|plus|\+) (½|1\/2|half an?|half|\d|an?|one) (\p{L}+) (?=\p{L})/iu,
    (whole, some: string, one: string, more: string, other: string) =>
      isColour(one) && isColour(other) ? `${counted(some) + counted(more)} ${one} and ${other} ` : whole,
  );

/** "2 carrots, 1 grated and 1 sliced": all of them, in two ways. */
const inTwoWays = (line: string): string =>
  line.replace(
    /^(\d+) ([^,\d]+), (\d+|one|two) ((?:\p{L}+ly )?(?:\p{L}+ed|whole))(?: and|,) (\d+|one|two) ((?:\p{L}+ly )?(?:\p{L}+ed|whole))\b/iu,
    (whole, all: string, food: string, some: string, one: string, more: string, other: string) =>
      counted(figure(some)) + counted(figure(more)) === Number(all) ? `${all} ${food}, ${one} and ${other}` : whole,
  );
const figure = (word: string): string => word.replace(/^one$/i, '1').replace(/^two$/i, '2');

/** What stands in a line and is no part of the food: who it is for, what to do without, where more is wanted. */
const REMARKS: readonly RegExp[] = [
  // What somebody said is no food.
  / ?\(note: [^()]*\)/giu,
  // "plus extra for dusting", "+ more to serve", "plus a drizzle to serve"
  /,? ?(?:\+|plus|and|with) (?:(?:a )?(?:little|bit)(?: of)? )?(?:extra|more|some (?:more|extra)|another)\b[^,;()]*/giu,
  /,? ?(?:\+|plus) an? (?:drizzle|splash|pinch|handful|few|knob|little)\b[^,;()\d]* (?:to|for) (?:(?:the|a|your) )?\p{L}+(?: the \p{L}+)?/giu,
  // "plus 2 tbsp for dusting": of the worktop, beside what the recipe holds
  /,? ?(?:\+|plus|and) (?:about )?[\d½⅓⅔¼¾⅛][^,;()]* for (?:the )?(?:dusting|rolling|greasing|kneading)\b/giu,
  // "lukewarm (about 38 °C)", "at 110F"
  /,? ?\b(?:at |about |around |approx\.? )*\d{2,3}(?: ?(?:[-–]|to) ?\d{2,3})? ?(?:[°º] ?[CF]?|degrees?(?: [CF]| celsius| fahrenheit)?|[CF](?=\)))(?![\p{L}\d])/giu,
  /,? ?\bsize (?:[SML]|XL|\d)\b/giu,
  // "(not pie filling)", "no need to peel"
  /,? ?\b(?:not|no need|never|rather than|instead of)\b[^,;()]*/giu,
  // "(for the fruit)"
  / ?\((?:for|to) [^()\d]*\)/giu,
  // "such as Maris Piper", "like Granny Smith", "preferably organic"
  /,? ?\b(?:such as|like|e\.?g\.?|i\.?e\.?|preferably|ideally)\b[^,;()]*/giu,
  /,? ?\b(?:more or less|give or take|or thereabouts|or so)\b/giu,
  // "of your choice", "if needed", "as needed", "the riper the better"
  /,? ?\bof (?:your |any )?(?:choice|kind|type|sort)\b/giu,
  /,? ?\b(?:(?:more|extra|plus|[\p{L}]+-free) )?(?:if|as|when) (?:needed|desired|required|wanted|you (?:like|wish|have|can|prefer)[^,;()]*|using|possible|available|necessary)\b/giu,
  /,? ?\bthe \p{L}+er,? the (?:better|nicer)\b/giu,
  /,? ?\b(?:any|whatever|whichever) (?:colou?r|flavou?r|kind|type|sort|variety|shape|brand|short shape|size)s?\b(?: (?:you (?:like|have)|will do|works?))?/giu,
  /,? ?(?:\+|plus) an? (?:splash|drizzle|pinch|bit|touch)(?: more| extra)?(?=[,;)]|$)/giu,
  // "no added sugar"
  /,? ?\bno (?:added|extra) \p{L}+/giu,
  // "from the garden", "from a packet"
  /,? ?\bfrom (?:the|an?|your|my) (?!can\b|tin\b|jar\b)\p{L}+(?= *(?:$|[,;)]))/giu,
  // "(from 1 lemon)"
  /,? ?\bfrom (?:about )?\d[^,;()]*/giu,
  // "(depending on heat)"
  /,? ?\bdepending on\b[^,;()]*/giu,
  // "rinsed until the water runs clear"
  /,? ?\b(?:until|till)\b[^,;()]*/giu,
  // "(see note)", "see tip below"
  /,? ?\bsee (?:notes?|tips?|recipe|above|below|method)\b[^,;()]*/giu,
];

/** What is wanted it for, at the end: "for dusting", "for the tin", "to serve". A food that is named there is not in the line. */
const PURPOSE =
  /,? ?\b(?:for|to) (?!taste\b|\d|\p{L}+ (?:people|servings)\b)(?:the |an? |your |my )?\p{L}[^,;()\d]*$/iu;

/**
 * A line without remarks: what is left names the food, how much of it, and how it comes.
 *
 * @returns the line, and what was said beside it: it stays with the food as a note
 * @example withoutRemarks('350g plain flour, plus extra for dusting') //=> { text: '350g plain flour', remarks: ['plus extra for dusting'] }
 */
export function withoutRemarks(line: string): { readonly text: string; readonly remarks: readonly string[] } {
  const remarks: string[] = [];
  let text = line;
  const take = (said: string) => {
    remarks.push(said.replace(/^[,; ]+|[,; ]+$/g, ''));
    return '';
  };
  for (const remark of REMARKS) text = text.replace(remark, take);
  // "1 slice of ginger the size of a coin": beside an amount, and no amount itself.
  if (/^[\d½⅓⅔¼¾]|^(?:an? )?(?:knob|lump)\b/iu.test(text)) text = text.replace(/,? ?\bthe size of [^,;()]*/iu, take);
  const purpose = PURPOSE.exec(text);
  // "Juice to drink" is all purpose: what stands before it must name something.
  if (purpose && purpose.index > 2) {
    text = text.slice(0, purpose.index);
    take(purpose[0]);
  }
  return {
    text: text
      .replace(/\( *\)/g, '')
      .replace(/\s+/g, ' ')
      .replace(/^[,;] ?|[,;] ?$/g, '')
      .trim(),
    remarks,
  };
}
