/** Between the names of products of which any may be in a kit; every screen and print sets what it says in quotation marks. */
const OR = '” or “';

/** The names of the products that a kit may be made with. */
export const productsNamed = (product: string): string[] => product.split(OR);

/** Whether a product is one of those that kits are made with; true where none was named. */
export const isNamed = (product: string | undefined, name: string): boolean =>
  product === undefined || productsNamed(product).includes(name);

/**
 * Products of which any may be in a kit, as one name to be set in quotation marks.
 *
 * @param most letters that may be kept: a name that no longer fits is left out, and nothing is packed of it
 * @example
 * eitherProduct(['Mill oats', 'Quay oats']) //=> 'Mill oats” or “Quay oats', said as: only “Mill oats” or “Quay oats”
 */
export const eitherProduct = (names: readonly string[], most = 120): string =>
  [...new Set(names.flatMap(productsNamed))].reduce((all, name) =>
    all.length + OR.length + name.length <= most ? `${all}${OR}${name}` : all,
  );
