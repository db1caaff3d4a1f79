import { readFileSync } from 'node:fs';
import { Ajv2020 } from 'ajv/dist/2020.js';
import formats from 'ajv-formats';

const JSON_TYPES = new Set(['application/json', 'application/problem+json']);
const DOCUMENT = new URL('../docs/openapi.json', import.meta.url);

/** A part of an address in a pointer into a JSON document. */
const escaped = (part) => part.replaceAll('~', '~0').replaceAll('/', '~1');

/**
 * Holds answers to the description of the routes as it is published, by a validator that is none of ours.
 *
 * @returns a function that says what is wrong with an answer, or null: of a route as it is described (`/api/engines/{id}`), by its
 *   method in small letters, its status, its type and its body as it was parsed
 * @example publishedAnswers()('get', '/api/today', 200, 'application/json', body) // null
 */
export function publishedAnswers(document = JSON.parse(readFileSync(DOCUMENT, 'utf8'))) {
  // as validators of most languages do it: patterns without the extensions of one of them
  const ajv = new Ajv2020({ strict: false, unicodeRegExp: false, inlineRefs: false, validateSchema: false });
  formats.default(ajv);
  ajv.addFormat('base64', /^[A-Za-z0-9+/]*={0,2}$/);
  ajv.addSchema(document, 'openapi');
  const known = new Map();
  return (method, path, status, type, body) => {
    if (!JSON_TYPES.has(type) || status === 204) return null;
    const operation = document.paths[path]?.[method];
    if (!operation) return `${method} ${path} is not described`;
    const key = operation.responses[status] ? String(status) : 'default';
    if (!operation.responses[key]?.content?.[type])
      return `${method} ${path} ${status}: no ${type} is described`;
    const { schema } = operation.responses[key].content[type];
    // what is described once is made once, wherever it is answered
    const pointer =
      schema.$ref?.slice(2) ??
      ['paths', path, method, 'responses', key, 'content', type, 'schema'].map(escaped).join('/');
    const validate = known.get(pointer) ?? ajv.compile({ $ref: `openapi#/${encodeURI(pointer)}` });
    known.set(pointer, validate);
    if (validate(body)) return null;
    const [{ instancePath, message, params }] = validate.errors;
    return `${method} ${path} ${status}: ${instancePath || 'it'} ${message} ${JSON.stringify(params)}`;
  };
}

/**
 * Finds which described route an address is one of.
 *
 * @returns a function from the path of an address to the path as it is described, or null
 * @example describedPaths()('/api/engines/5b…') // '/api/engines/{id}'
 */
export function describedPaths(document = JSON.parse(readFileSync(DOCUMENT, 'utf8'))) {
  const described = Object.keys(document.paths)
    .map((path) => ({
      path,
      // what is named goes before what varies
      varies: (path.match(/\{/g) ?? []).length,
      pattern: new RegExp(`^${path.replaceAll('.', '\\.').replaceAll(/\{\w+\}/g, '[^/]+')}$`),
    }))
    .sort((a, b) => a.varies - b.varies);
  return (pathname) => described.find(({ pattern }) => pattern.test(pathname))?.path ?? null;
}
