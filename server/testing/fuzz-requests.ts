import fc from 'fast-check';
import { z } from 'zod';
import type { Route } from '#contract/route.ts';
import { ROUTES, type RouteName } from '#contract/routes.ts';

/** A request as it is sent. */
export interface FuzzedRequest {
  readonly name: string;
  readonly method: string;
  readonly path: string;
  readonly body: string | undefined;
}

/** What can be named in requests because it is there: it is used often, so that requests get further than the door. */
export interface Known {
  readonly sites: readonly string[];
  readonly pages: readonly string[];
  /** Values of other parameters of paths, by their name. */
  readonly others: Readonly<Record<string, readonly string[]>>;
}

/** Routes that are left out: they never end, reach other hosts, or sign the sender out. */
const LEFT_OUT: readonly RouteName[] = [
  'streamEvents',
  'startCrawl',
  'askOutsideLinks',
  'lookAsEngine',
  'signOut',
  // A request that is right by chance would take the site from those that follow.
  'deleteSite',
];

interface JsonSchema {
  readonly type?: string | readonly string[];
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly JsonSchema[];
  readonly oneOf?: readonly JsonSchema[];
  readonly allOf?: readonly JsonSchema[];
  readonly properties?: Readonly<Record<string, JsonSchema>>;
  readonly required?: readonly string[];
  readonly additionalProperties?: boolean | JsonSchema;
  readonly propertyNames?: JsonSchema;
  readonly items?: JsonSchema;
  readonly minItems?: number;
  readonly maxItems?: number;
  readonly minLength?: number;
  readonly maxLength?: number;
  readonly pattern?: string;
  readonly format?: string;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly $ref?: string;
  readonly $defs?: Readonly<Record<string, JsonSchema>>;
}

/** Values that a schema allows, of what there is where a text may name it. */
function valid(schema: JsonSchema, root: JsonSchema, known: Known, depth = 0): fc.Arbitrary<unknown> {
  if (schema.$ref !== undefined) {
    const named = schema.$ref === '#' ? root : root.$defs?.[schema.$ref.replace('#/$defs/', '')];
    return depth > 4 || !named ? fc.constant(null) : valid(named, root, known, depth + 1);
  }
  const next = (one: JsonSchema) => valid(one, root, known, depth + 1);
  if (schema.const !== undefined) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...schema.enum);
  const either = schema.anyOf ?? schema.oneOf;
  if (either) return fc.oneof(...either.map(next));
  if (schema.allOf) return fc.tuple(...schema.allOf.map(next)).map((all) => Object.assign({}, ...(all as object[])));
  const type = Array.isArray(schema.type) ? schema.type[0] : schema.type;
  switch (type) {
    case 'object': {
      const fields = fc.record(
        Object.fromEntries(Object.entries(schema.properties ?? {}).map(([name, one]) => [name, next(one)])),
        { requiredKeys: [...(schema.required ?? [])] },
      );
      if (schema.properties || typeof schema.additionalProperties !== 'object') return fields;
      return fc.dictionary(
        schema.propertyNames ? (next(schema.propertyNames) as fc.Arbitrary<string>) : fc.constantFrom('en', 'de', 'a'),
        next(schema.additionalProperties),
        { maxKeys: 3 },
      );
    }
    case 'array':
      return fc.array(next(schema.items ?? {}), {
        minLength: schema.minItems ?? 0,
        maxLength: Math.min(schema.maxItems ?? 4, Math.max(schema.minItems ?? 0, 4)),
      });
    case 'integer':
    case 'number':
      return fc.integer({ min: Math.max(schema.minimum ?? 0, -1e6), max: Math.min(schema.maximum ?? 1000, 1e6) });
    case 'boolean':
      return fc.boolean();
    case 'null':
      return fc.constant(null);
    case 'string':
      return texts(schema, known);
    default:
      return fc.constantFrom(null, 'x', 0, {}, []);
  }
}

function texts({ format, pattern, minLength = 0, maxLength = 60 }: JsonSchema, known: Known): fc.Arbitrary<string> {
  if (format === 'uuid') return fc.uuid();
  if (format === 'date-time')
    return fc.date({ noInvalidDate: true, min: new Date(0), max: new Date(4e12) }).map((at) => at.toISOString());
  if (format === 'date') return fc.constantFrom('2026-01-31', '2028-02-29');
  if (format === 'email') return fc.constantFrom('ada@home.example', 'bea@home.example');
  if (format === 'uri') return fc.constantFrom('https://tides.example/', 'http://127.0.0.1:1/');
  const there = [...known.pages, ...known.sites, 'en', 'de'];
  if (pattern !== undefined) {
    const shape = new RegExp(pattern, 'u');
    const fits = there.filter((one) => shape.test(one));
    // What looks ahead cannot be made from its pattern.
    const made = pattern.includes('(?')
      ? fc.constantFrom('a', 'abcdefghijklmnop')
      : fc.stringMatching(shape, { size: '-1' });
    return fits.length > 0 ? fc.oneof({ weight: 4, arbitrary: fc.constantFrom(...fits) }, made) : made;
  }
  return fc.oneof(
    fc.constantFrom(
      ...there.filter(({ length }) => length >= minLength && length <= maxLength),
      'x'.repeat(Math.max(minLength, 1)),
    ),
    fc.string({ minLength, maxLength: Math.max(minLength, Math.min(maxLength, 60)), unit: 'grapheme' }),
  );
}

const deep = (levels: number): unknown => {
  let value: unknown = 1;
  for (let level = 0; level < levels; level += 1) value = level % 2 ? [value] : { a: value };
  return value;
};

/** What is put in the place of a value, or of a part of a path. */
const HOSTILE: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1e308,
  2 ** 53,
  -(2 ** 63),
  0.1,
  '',
  ' ',
  'a'.repeat(5000),
  'ä'.repeat(300),
  '\0',
  '\ud800',
  '\u202e',
  '__proto__',
  'constructor',
  'toString',
  '../../etc/passwd',
  '%00',
  "'; DROP TABLE site; --",
  '<script>alert(1)</script>',
  '{{7*7}}',
  '\r\nSet-Cookie: a=b',
  '2026-13-45T99:99:99Z',
  '-0',
  'NaN',
  '١٢',
  '=1+1',
  [],
  {},
  [[]],
  [null],
  { length: 1e9 },
  { toJSON: 1 },
  deep(60),
  deep(2000),
  Array.from({ length: 2000 }, () => 'a'),
];

/** Puts a value in the place of some part of another one. */
function withHostile(value: unknown, at: number, hostile: unknown): unknown {
  if (typeof value !== 'object' || value === null || at % 5 === 0) return hostile;
  const keys = Object.keys(value);
  if (keys.length === 0) return hostile;
  const key = keys[Math.floor(at / 5) % keys.length]!;
  const rest = Math.floor(at / 5 / keys.length);
  if (Array.isArray(value))
    return value.map((one: unknown, index) => (String(index) === key ? withHostile(one, rest, hostile) : one));
  const copy: Record<string, unknown> = { ...value };
  if (at % 5 === 1) delete copy[key];
  else if (at % 5 === 2) copy[typeof hostile === 'string' ? hostile.slice(0, 50) : 'more'] = hostile;
  else copy[key] = withHostile(copy[key], rest, hostile);
  return copy;
}

function segment(name: string, known: Known): fc.Arbitrary<string> {
  const there = name === 'site' ? known.sites : name === 'page' ? known.pages : (known.others[name] ?? []);
  const hostile = fc
    .constantFrom(...HOSTILE)
    .map((one) => (typeof one === 'string' ? one : JSON.stringify(one)).slice(0, 2000));
  return there.length > 0
    ? fc.oneof({ weight: 6, arbitrary: fc.constantFrom(...there) }, hostile)
    : fc.oneof(fc.uuid(), fc.integer({ min: 0, max: 9 }).map(String), hostile);
}

/** A part of a path as it is sent; what cannot be escaped goes as it is. */
export const escapedPart = (text: string): string => {
  try {
    return encodeURIComponent(text);
  } catch {
    return '%ED%A0%80';
  }
};

/** Requests to the routes of the API: valid ones by their schemas, most of them with something hostile in one place. */
export function anyRequest(known: Known): fc.Arbitrary<FuzzedRequest> {
  const routes = (Object.keys(ROUTES) as RouteName[]).filter((name) => !LEFT_OUT.includes(name));
  return fc.oneof(
    ...routes.map((name) => {
      const route: Route = ROUTES[name];
      const names = [...route.path.matchAll(/:(\w+)/g)].map(([, parameter]) => parameter!);
      const parts = fc.tuple(...names.map((parameter) => segment(parameter, known)));
      const schema = route.body && (z.toJSONSchema(route.body, { io: 'input', unrepresentable: 'any' }) as JsonSchema);
      const body = schema ? valid(schema, schema, known) : fc.constant(undefined);
      const query = fc.oneof(
        { weight: 3, arbitrary: fc.constant('') },
        fc
          .tuple(
            fc.constantFrom('before', 'since', 'pages', 'by', 'at', 'address', 'q', 'to', 'a[b]'),
            fc.constantFrom(...HOSTILE),
          )
          .map(
            ([key, value]) =>
              `?${key}=${escapedPart((typeof value === 'string' ? value : JSON.stringify(value)).slice(0, 2000))}`,
          ),
      );
      return fc
        .tuple(parts, body, query, fc.nat(1_000_000), fc.constantFrom(...HOSTILE), fc.nat(3))
        .map(([values, given, asked, at, hostile, mode]): FuzzedRequest => {
          let index = 0;
          const path = route.path.replace(/:(\w+)/g, () => escapedPart(values[index++]!)) + asked;
          const sent = given === undefined || mode === 0 ? given : withHostile(given, at, hostile);
          return {
            name,
            method: route.method.toUpperCase(),
            path,
            body: sent === undefined ? undefined : JSON.stringify(sent),
          };
        });
    }),
  );
}

/** So many requests, the same for the same seed. */
export const someRequests = (known: Known, count: number, seed: number): FuzzedRequest[] =>
  fc.sample(anyRequest(known), { numRuns: count, seed });
