import * as zod from 'zod';

export { config } from 'zod';
export type { core, infer, ZodEnum, ZodError, ZodNullable, ZodOptional, ZodRawShape, ZodString, ZodType } from 'zod';

/** What is asked of a schema to get another one from it: put off as the schema itself is. */
const STEPS: ReadonlySet<string | symbol> = new Set([
  ...['catch', 'describe', 'extend', 'gt', 'int', 'length', 'max', 'min', 'nullable', 'omit', 'optional', 'or'],
  ...['overwrite', 'partial', 'positive', 'refine', 'regex', 'startsWith', 'superRefine', 'toLowerCase', 'trim'],
]);

type Made = Record<string | symbol, unknown>;
type Call = (...given: readonly unknown[]) => unknown;

/** What makes each schema that is put off. */
const makers = new WeakMap<object, () => Made>();

/** A schema as zod made it, also within a list and among the parts of an object; anything else as it is. */
function real(given: unknown): unknown {
  if (typeof given !== 'object' || given === null) return given;
  const make = makers.get(given);
  if (make) return make();
  if (Array.isArray(given)) return given.map(real);
  if (Object.getPrototypeOf(given) !== Object.prototype) return given;
  return Object.fromEntries(Object.entries(given).map(([name, part]) => [name, real(part)]));
}

/** A schema that is made when it is first used for anything but another one. */
function putOff(make: () => unknown): object {
  let made: Made | null = null;
  const own = (): Made => (made ??= make() as Made);
  const schema = new Proxy(
    {},
    {
      get(_, name) {
        if (made === null && STEPS.has(name))
          return (...given: readonly unknown[]) => putOff(() => (own()[name] as Call)(...given.map(real)));
        return own()[name];
      },
      has: (_, name) => name in own(),
      getPrototypeOf: () => Object.getPrototypeOf(own()) as object,
    },
  );
  makers.set(schema, own);
  return schema;
}

/** One of zod's functions that make schemas, put off. */
function later<T>(make: T): T {
  return ((...given: readonly unknown[]) => putOff(() => (make as Call)(...given.map(real)))) as T;
}

export const array = later(zod.array);
export const boolean = later(zod.boolean);
export const custom = later(zod.custom);
export const discriminatedUnion = later(zod.discriminatedUnion);
export const int = later(zod.int);
export const iso = { datetime: later(zod.iso.datetime) };
export const literal = later(zod.literal);
export const looseObject = later(zod.looseObject);
export const number = later(zod.number);
export const object = later(zod.object);
export const partialRecord = later(zod.partialRecord);
export const record = later(zod.record);
export const strictObject = later(zod.strictObject);
export const string = later(zod.string);
export const tuple = later(zod.tuple);
export const union = later(zod.union);
export const unknown = later(zod.unknown);

const enumOf = later(zod.enum);
export { enumOf as enum };

/** The schema itself, for what goes through its parts, such as writing it down as a JSON Schema. */
export function schemaItself<T extends zod.ZodType>(schema: T): T {
  return real(schema) as T;
}
