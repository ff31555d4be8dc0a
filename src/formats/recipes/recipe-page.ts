// What a web page says of recipes for programs to read: linked data in its scripts, microdata and RDFa in its elements.
import { Parser } from 'htmlparser2';
import { FileRefused } from '../text';

/** A recipe as a page marks it up: the names of schema.org, each with what stands there, in order. */
export type PageRecipe = Readonly<Record<string, unknown>>;

/** What was found in a page: scripts of linked data as text, and recipes marked up in its elements. */
export interface PageFinds {
  readonly scripts: readonly string[];
  readonly marked: readonly PageRecipe[];
  /** Its main heading, and what one reads on it without its menus: a row for each block. */
  readonly heading: string;
  readonly text: string;
}

/** Elements stand inside each other so deep at most; browsers stop at 512. */
const DEEPEST = 1000;

/** Elements that are never closed. */
const VOID = new Set('area base br col embed hr img input link meta source track wbr'.split(' '));
/** What a reader does not see. */
const UNSEEN = new Set(['script', 'style', 'template', 'noscript', 'head']);
/** What stands around a page's own words. */
const AROUND = new Set(['nav', 'footer', 'aside', 'form', 'button', 'select', 'svg']);
/** Where a row ends. */
const BLOCK = /^(?:p|div|li|br|tr|h[1-6]|section|article|ol|ul|dd|dt|table|header|main)$/;

interface Scope {
  readonly isRecipe: boolean;
  readonly values: Map<string, string[]>;
}

interface Open {
  readonly tag: string;
  readonly isHidden: boolean;
  /** Properties whose text is being collected, with the scope they belong to. */
  readonly property: string;
  readonly scope: Scope | undefined;
  /** The recipe that what stands in it belongs to, and whether it is a thing of its own in there: an author, a step. */
  readonly inside: Scope | undefined;
  readonly isPart: boolean;
  /** The scope that this element begins. */
  readonly begins: Scope | undefined;
  text: string;
  /** The value stands in an attribute. */
  readonly stated: string | undefined;
}

/**
 * Reads a page once, from its first letter to its last. What stands in a comment is not in the page, and what is hidden says
 * nothing in an element; scripts of linked data count wherever they stand.
 *
 * @throws FileRefused where it nests deeper than any page
 * @example
 * readPage('<div itemscope itemtype="https://schema.org/Recipe"><h1 itemprop="name">Quay cake</h1></div>').marked
 * //=> [{ '@type': 'Recipe', name: 'Quay cake' }]
 */
export function readPage(html: string): PageFinds {
  const scripts: string[] = [];
  const marked: PageRecipe[] = [];
  const stack: Open[] = [];
  let script: string | undefined;
  let heading = '';
  let all = '';
  const hidden = () => stack.at(-1)?.isHidden ?? false;
  const close = () => {
    const open = stack.pop();
    if (!open) return;
    if (open.begins?.isRecipe) marked.push(recipeOf(open.begins));
    if (open.property !== '' && open.scope && !open.isHidden) {
      const value = (open.stated ?? open.text)
        .replace(/[ \t\r\f]+/g, ' ')
        .replace(/ ?\n[ \n]*/g, '\n')
        .trim();
      for (const name of value === '' ? [] : open.property.split(/\s+/)) {
        const key = name.replace(/^.*[/:#]/, '');
        const same = open.scope.values.get(key);
        if (same) same.push(value);
        else open.scope.values.set(key, [value]);
      }
    }
    // A step inside the instructions is part of their text as well.
    if (open.tag === 'h1' && !open.isHidden && heading === '') heading = open.text.replace(/\s+/g, ' ').trim();
    const around = stack.at(-1);
    if (UNSEEN.has(open.tag) || AROUND.has(open.tag) || open.isHidden) return;
    const said = BLOCK.test(open.tag) ? `\n${open.text}\n` : open.text;
    if (around) around.text += said;
    else all += said;
  };
  const parser = new Parser(
    {
      onopentag(tag, attributes) {
        if (stack.length >= DEEPEST)
          throw new FileRefused(
            'This page nests its parts deeper than any page does. Select the recipe on the page, copy it, and paste it here.',
          );
        if (tag === 'script') script = /ld\+json/i.test(attributes.type ?? '') ? '' : undefined;
        if (tag === 'br') {
          const top = stack.at(-1);
          if (top) top.text += '\n';
        }
        const type = attributes.itemtype ?? attributes.typeof ?? '';
        const isScope = attributes.itemscope !== undefined || attributes.typeof !== undefined;
        const begins = isScope
          ? { isRecipe: /(?:^|[/:#\s])Recipe(?:\s|$)/.test(type), values: new Map<string, string[]>() }
          : undefined;
        const isHidden =
          hidden() ||
          UNSEEN.has(tag) ||
          attributes.hidden !== undefined ||
          /display\s*:\s*none/i.test(attributes.style ?? '');
        const stated =
          attributes.content ?? (tag === 'time' ? attributes.datetime : undefined) ?? (tag === 'meta' ? '' : undefined);
        // A part of a recipe that is a thing of its own, such as a step, gives its text to the recipe.
        const around = stack.at(-1);
        const scope = around?.inside;
        const isPart = around?.isPart ?? false;
        const own = attributes.itemprop ?? attributes.property ?? '';
        const open: Open = {
          tag,
          isHidden: isHidden && tag !== 'meta',
          property: isPart ? '' : own,
          scope,
          inside: begins?.isRecipe ? begins : scope,
          isPart: begins ? !begins.isRecipe && scope !== undefined : isPart,
          begins,
          text: '',
          stated,
        };
        stack.push(open);
        if (VOID.has(tag)) close();
      },
      ontext(text) {
        if (script !== undefined) script += text;
        const top = stack.at(-1);
        if (top && !top.isHidden) top.text += text;
      },
      onclosetag(tag, isImplied) {
        if (tag === 'script' && script !== undefined) {
          scripts.push(script);
          script = undefined;
        }
        if (VOID.has(tag) && isImplied) return;
        // The parser closes what was left open itself: what ends here is on top.
        if (stack.at(-1)?.tag === tag) close();
      },
    },
    { decodeEntities: true, lowerCaseTags: true, lowerCaseAttributeNames: true },
  );
  parser.write(html);
  parser.end();
  while (stack.length > 0) close();
  return {
    scripts,
    marked,
    heading,
    text: all
      .replace(/[ \t\r\f]+/g, ' ')
      .replace(/ ?\n[ \n]*/g, '\n')
      .trim(),
  };
}

function recipeOf({ values }: Scope): PageRecipe {
  const of = (...names: string[]) => names.map((name) => values.get(name)).find((found) => found !== undefined);
  const [name] = of('name') ?? [];
  const lines = [
    ...new Set(['recipeIngredient', 'ingredients', 'ingredient'].flatMap((each) => values.get(each) ?? [])),
  ];
  return {
    '@type': 'Recipe',
    ...(name ? { name } : {}),
    ...(of('recipeYield', 'yield') ? { recipeYield: of('recipeYield', 'yield') } : {}),
    ...(of('description', 'summary') ? { description: of('description', 'summary')?.[0] } : {}),
    // Old pages have the one name, new ones the other, and some both: nothing that stands under either is lost.
    ...(lines.length > 0 ? { recipeIngredient: lines } : {}),
    ...(of('recipeInstructions', 'instructions')
      ? { recipeInstructions: of('recipeInstructions', 'instructions')?.flatMap((text) => text.split('\n')) }
      : {}),
    ...(of('prepTime') ? { prepTime: of('prepTime')?.[0] } : {}),
    ...(of('cookTime') ? { cookTime: of('cookTime')?.[0] } : {}),
    ...(of('totalTime') ? { totalTime: of('totalTime')?.[0] } : {}),
  };
}
