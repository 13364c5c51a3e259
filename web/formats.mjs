/** Writes the types of docs/formats/*.schema.json into src/formats, one module for each format: what the core writes is read here as it is. */
import { mkdir, readFile, readdir, rm, writeFile } from 'node:fs/promises'
import { basename, dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { compile } from 'json-schema-to-typescript'

const here = dirname(fileURLToPath(import.meta.url))
const schemas = join(here, '../docs/formats')
const target = join(here, 'src/formats')
const OWN = 'https://upper-pane.invalid/formats/'
const HEAD = '/* Made of docs/formats by formats.mjs; it is not kept. */'

const REFERENCED =
  / \*\n \* This interface was referenced by `[A-Za-z]+`'s JSON-Schema\n \* via the `definition` "[A-Za-z]+".\n|\/\*\*\n \* This interface was referenced by `[A-Za-z]+`'s JSON-Schema\n \* via the `definition` "[A-Za-z]+".\n \*\/\n/g

const isList = (value) => Array.isArray(value)
const HEAD_OF_FILE = ['$schema', '$id']
const RULES_OF_FIELDS = ['oneOf', 'anyOf', 'not', 'dependentRequired']

const titled = (name) => name.replace(/(^|-)([a-z])/g, (_, __, letter) => letter.toUpperCase())
const typeOf = (file) => `import('./${basename(file, '.schema.json')}').${titled(basename(file, '.schema.json'))}`

/** What types cannot say is left out: how long lists are unless that is fixed, which fields go together, where else a document is told. */
function readable(schema) {
  if (isList(schema)) return schema.map(readable)
  if (typeof schema !== 'object' || schema === null) return schema
  const { minItems, maxItems, prefixItems, items, ...rest } = schema
  const told = Object.entries(rest).filter(([key]) => !HEAD_OF_FILE.includes(key))
  const left = Object.fromEntries(told.map(([key, value]) => [key, readable(value)]))
  if (left.properties) for (const rule of RULES_OF_FIELDS) delete left[rule]
  if (typeof left.$ref === 'string') return left.$ref.startsWith(OWN) ? { tsType: typeOf(left.$ref.slice(OWN.length)) } : { $ref: left.$ref }
  if (prefixItems) return { ...left, items: readable(prefixItems), minItems, maxItems }
  if (items === undefined) return left
  const isFixed = minItems !== undefined && minItems === maxItems && minItems < 4
  return isFixed ? { ...left, items: Array(minItems).fill(readable(items)), minItems, maxItems } : { ...left, items: readable(items) }
}

await rm(target, { recursive: true, force: true })
await mkdir(target, { recursive: true })
for (const file of (await readdir(schemas)).filter((name) => name.endsWith('.schema.json'))) {
  const name = basename(file, '.schema.json')
  const schema = readable(JSON.parse(await readFile(join(schemas, file), 'utf8')))
  const types = await compile({ ...schema, title: titled(name) }, titled(name), {
    additionalProperties: false,
    bannerComment: HEAD,
    style: JSON.parse(await readFile(join(here, '.prettierrc.json'), 'utf8')),
    unreachableDefinitions: true,
    unknownAny: true,
    cwd: schemas,
  })
  await writeFile(join(target, `${name}.ts`), types.replace(REFERENCED, ''))
}
