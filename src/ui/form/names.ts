type Under<Place extends string, Value> =
  | Place
  | (unknown extends Value
      ? never
      : NonNullable<Value> extends readonly (infer Item)[]
        ? Under<`${Place}[${number}]`, Item>
        : NonNullable<Value> extends object
          ? {
              [Name in keyof NonNullable<Value> & string]: Under<`${Place}.${Name}`, NonNullable<Value>[Name]>;
            }[keyof NonNullable<Value> & string]
          : never);

/** The names that fields of a form may have, when it sends what a service takes: "outdoor.fuel", "hours[0].from". */
type FieldName<Input> = { [Name in keyof Input & string]: Under<Name, Input[Name]> }[keyof Input & string];

/**
 * Names the fields of a form after what its service takes: one that the service does not know is found out when the program
 * is built, and what the service refuses is said at the field.
 *
 * @example
 * const place = namesOf<InputOf<typeof addPlace>>();
 * place('outdoor.fuel') //=> 'outdoor.fuel'
 */
export const namesOf =
  <Input>() =>
  <Name extends FieldName<Input>>(name: Name): Name =>
    name;
