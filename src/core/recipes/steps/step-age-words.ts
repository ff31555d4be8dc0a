// Words from which the least age of a step is read: what is an adult's, what is hot, and what the youngest do.

/** Any of these, alone or beside others. */
const anyOf = (patterns: readonly RegExp[]): RegExp => new RegExp(patterns.map(({ source }) => source).join('|'), 'i');

/** Blades without a guard, open flames, boiling water, fat, sugar and jam: an adult's, whatever else is said. */
export const DANGEROUS = anyOf([
  /\b(?:butterfl(?:y|ied))\b/,
  /\bfillet the\b/,
  /\bdebone\b/,
  /\bde-bone\b/,
  /\bbone the\b/,
  /\bgut (?:the|and|each|a)\b/,
  /\bfoil\b[^.;]*\b(?:hot|steam)\b|\bsteam (?:out|escape)\b/,
  /\bscale the\b/,
  /\bspatchcock\b/,
  /\btorch the\b/,
  /\b(?:over (?:the|a) gas)\b/,
  /\b(?:into (?:the )?(?:hot )?(?:oil|fat))\b/,
  /\b(?:basket|batch) (?:of \w+ )?into\b/,
  /\b(?:simmer|cook|boil)\w* (?:the )?(?:jam|marmalade|toffee|caramel|fudge|syrup)\b/,
  /\bover the sink\b/,
  /\bcolander\b/,
  /\bpour off the\b/,
  /\b(?:take the (?:tray|tin|dish|baking sheet|cake|bread|loaf|pan|pizza) out)\b/,
  /\bpizza stone\b/,
  /\bhot stone\b/,
  /\bheat(?:ing)? the (?:\w+ )?oil to \d+\b/,
  /\b(?:light(?:ing)? the (?:gas|burner|stove|hob|flame|candles?))\b/,
  /\bblanch\w*\b/,
  /\bset (?:light|fire) to\b/,
  /\bnaked flames?\b/,
  /\bpour\w*\b[^.;]*\b(?:hot|boiling) (?:stock|broth|water|soup|milk|liquid|cream)\b/,
  /\b(?:(?:just[- ])?boil(?:ing|ed)(?: hot)? (?:water|stock|milk|liquid|broth|cream))\b/,
  /\b(?:pour|spread|stir|tip|drizzle)\w* (?:the |over )*(?:hot )?(?:caramel|toffee)\b/,
  /\b(?:open|gas|over a|over the) flames?\b/,
  /\b(?:bubbling (?:jam|sugar|syrup|caramel|fat))\b/,
  /\bjars? while (?:still )?hot\b/,
  /\bcoals\b/,
  /\bembers\b/,
  /\boven gloves?\b/,
  /\b(?:hot (?:tray|tin|pan from))\b/,
  /\b(?:hot|boiling)\b[^.]{0,40}\b(?:sieve|strain)\w*\b/,
  /\bmandolin[e]?\b/,
  /\bcleaver\b/,
  /\belectric knife\b/,
  /\bmeat slicer\b/,
  /\bblow-?torch\b/,
  /\b(?:shuck\w* (?!(?:the )?(?:corn|peas|beans)\b))\b/,
  /\bopen the oysters\b/,
  /\b(?:light|lay|stoke|build|make) (?:the |a )?(?:fire|barbecue|bbq|coals|campfire)\b/,
  /\b(?:caramel(?:ise|ize)? (?:the )?sugar)\b/,
  /\b(?:sugar )?syrup to \d\b/,
  /\b(?:boil(?:ing)? (?:the )?(?:sugar|syrup|jam))\b/,
  /\b(?:hot|boiling) (?:jam|syrup|caramel|sugar|fat)\b/,
  /flamb[eé]/,
  /\brazor\b/,
  /\bsharpen\w*\b/,
  /\bsharp knives\b/,
  /\bhot ash(?:es)?\b/,
  /\bcarve the\b/,
  // Machines that cut or fry, and blades to be cleaned.
  /\b(?:(?:deep[- ]?)?fryer|mincer|meat grinder|food slicer|juicer blades?|chip pan|deep pan of)\b/,
  /\b(?:clean|wash|wipe|rinse|scrub|dry|remove|take out|change)\w*\b[^.;]*\bblades?\b/,
  /\b(?:craft|carving|boning|filleting|heavy|oyster|bread|big|large|chef'?s|cook'?s|paring) (?:knife|knives)\b[^.;]*\b(?:stone|bone|joint|rind|lobster|crab|frozen|squash|pumpkin|coconut)\b/,
  /\b(?:craft|carving|boning|filleting|heavy|oyster) (?:knife|knives)\b|\bstone\b[^.;]*\bheavy knife\b/,
  /\b(?:oysters?)\b(?! (?:sauce|mushrooms?))/,
  /\b(?:whittl\w*|hack(?:ed|ing|s)?|saw through|chisel|drill|axe|hatchet|machete)\b/,
  // What burns the skin otherwise, and broken glass.
  /\b(?:bleach|caustic|lye|ammonia|descaler|disinfectant concentrate|(?:oven|drain|grill) cleaner|methylated|paraffin|lighter fluid|firelighters?)\b/,
  /\b(?:broken|smashed|shattered|cracked) (?:glass|jars?|bottles?|plates?|bowls?|crockery)\b|\bshards?\b/,
  /\b(?:melt\w* wax|wax over|candle wax)\b/,
  /\b(?:caramel|toffee|syrup|jam)\b[^.;]*\b(?:hot|runny|bubbling|molten|smoking)\b/,
  // Flame, and what comes off it or out of an oven.
  /\b(?:in|over|under|on|into|directly in|near) (?:the |a |an |open )*(?:flames?|gas ring|burner|coals|camp(?:ing)? stove|fire)\b/,
  /\b(?:light|lighting|lit|relight|ignite|strike)\w* (?:the |a |each |an )*(?:\w+ )?(?:burner|gas|flame|match(?:es)?|candles?|lamp|pilot|fuel|barbecue|fire|grill)\b/,
  /\b(?:baste|basting)\b/,
  /\b(?:slide|pull|lift|take|bring|get|reach|carry|haul)\w*\b[^.;]*\b(?:from|out of|in|into|inside) (?:the |a )?(?:hot )?(?:oven|grill|broiler|smoker|microwave|fire|kiln|tandoor)\b/,
  // A pan of boiling water on its way to the sink.
  /\b(?:empty|tip|pour|drain|strain|lift)\w*\b[^.;]*\b(?:away|out|off|through|into)\b[^.;]*\b(?:sink|colander|steam)\b/,
  /\bpan of\b[^.;]*\bsieve\b/,
  /\b(?:boiling|cooking|pasta|potato|hot|scalding) (?:\w+ )?water (?:away|off|out|down)\b/,
  /\b(?:empty|tip)\w* (?:out )?(?:the |a )?(?:pan|pot|saucepan|kettle|wok)\b/,
]);

/** What is hot or handles what is; "hot" is no heat in a drink, a sauce or a bun. */
export const HOT = anyOf([
  /\bhot\b(?! (?:sauce|chocolate|dogs?|cross|pepper|paprika|chilli|mustard|tap))/,
  /\bladle\b/,
  /\b(?:skim|carry|pour|transfer|lift|take|move)\w*\b[^.;]*\b(?:soup|stew|stock|broth|gravy|curry|porridge|chilli|pasta|noodles|dumplings|pot)\b/,
  /\b(?:panini|toastie|sandwich|waffle) (?:press|iron|maker|toaster)\b/,
  /\b(?:boiling|steaming|bubbling|sizzling|simmering|scalding|molten|piping)\b/,
  /\bflip\w*\b/,
  /\b(?:turn|slide|lift)\w* (?:the |each |them |it |over )*(?:pancakes?|omelettes?|fritters?|eggs?|burgers?|patties|bacon|dumplings?|flatbreads?|pan)\b/,
  /\blid away\b/,
  /\b(?:pour|strain)\w*\b[^.;]*\b(?:tea|coffee)\b/,
  /\breduce (?:the |it |by|to)/,
  /\b(?:griddle|steamer|smok(?:e|es|ing) hot|until it smokes|microwav\w*|toaster|hotplate|hob|stove|burner|kettle|iron (?:the|it|each))\b/,
  // What happens over heat alone.
  /\buntil\b[^.;]*\b(?:absorbed|thickens|thickened|reduced|evaporat\w*|nutty|translucent|wilted|coats the|caramelis\w*|carameliz\w*)\b/,
  // They burn in the eye long after.
  /\b(?:slit|seed|deseed|de-seed|scrape|split|rub)\w*\b[^.;]*\bchill?i(?:es|s|e)?\b(?! (?:powder|flakes|sauce))/,
]);

/** What the youngest do, with their hands, a spoon or a bowl; beginnings of verbs. */
const GENTLE_VERBS = `
  stir mix combin fold whisk beat whip cream wash rins tear rip press squash mash crush pat sprinkl scatter roll shap
  form knead work stretch spread smear fill stuff greas brush decorat pick pluck strip crack break snap sift siev measur
  weigh count cover wrap chill refrigerat freez cool rest prov leav let allow wait set put plac lay arrang pil layer
  tast garnish serv divid share sharing spoon scoop dollop pour tip drizzl dust dot swirl add toss rub crumbl squeez dip coat
  soak marinat season thread stack stamp prick unroll assembl build enjoy eat pack label shak hull shell pod pop twist
  pinch seal drain strain dissolv repeat gather wip dry blot mak prepar return transfer split sprout discard throw keep
  store hang hand pass invit reserv save thin loosen moisten dampen tuck pleat flatten punch knock collect open close
  remov skim plunge pound skewer thaw defrost proof infus stand
  knot smash slip scoop run draw bash shuck dunk separat pip
`;
const GENTLE_PHRASES = [
  /lin(?:e|ing)/,
  /ris(?:e|ing)/,
  /bring (?:it |the \w+ )?together/,
  /turn (?:out|onto|into)/,
  /lift (?:out|up) the (?:dough|pastry)/,
  /butter (?:the|a|each)/,
  /oil (?:the|a|each)/,
  /peel (?:off|away|back)/,
  /top (?:the|each|them|it|with)/,
  // "What is left is cooled fast": it tells something, and asks for nothing.
  /(?:what|it|they|this|that|these|nobody|everybody|everyone|until|enough|about)/,
];

/** A gentle doing where a sentence or a part of it begins: "the butter" is no doing. */
export const GENTLE = new RegExp(
  `(?:^|[,;:()] ?|\\b(?:and|then|or|to|you|let|\\p{L}+ly) )(?:(?:${GENTLE_VERBS.trim().split(/\s+/).join('|')})\\p{L}*|${GENTLE_PHRASES.map(({ source }) => source).join('|')})\\b`,
  'iu',
);
