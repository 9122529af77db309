// What the description of the API is made from beside the checks: the shapes of the contract's classes as the types
// say, and what each route is for as its comment says. Part of the build.
import { mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import {
  DEFAULT_CONFIG,
  LiteralType,
  NullType,
  SchemaGenerator,
  UnionType,
  createFormatter,
  createParser,
  createProgram,
} from 'ts-json-schema-generator';
import ts from 'typescript';
import { root } from './tools.mjs';

const filesUnder = (folder) =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && entry.name.endsWith('.ts'))
    .map(({ parentPath, name }) => join(parentPath, name));

const parse = (file) => ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);

function classesOf(file) {
  const found = [];
  parse(file).forEachChild((node) => {
    if (ts.isClassDeclaration(node) && node.name) found.push(node);
  });
  return found;
}

/** Types that are lists of words or numbers, however they are put together: the checker knows them. */
class Words {
  constructor(checker) {
    this.checker = checker;
  }

  #valuesOf(node) {
    const type = this.checker.getTypeFromTypeNode(node);
    const values = (type.isUnion() ? type.types : [type]).map((each) => {
      if (each.isStringLiteral() || each.isNumberLiteral()) return each.value;
      if (each.flags & ts.TypeFlags.Null) return null;
      return each.flags & ts.TypeFlags.BooleanLiteral ? this.checker.typeToString(each) === 'true' : undefined;
    });
    return values.includes(undefined) ? undefined : values;
  }

  supportsNode(node) {
    const named = ts.isIndexedAccessTypeNode(node) || ts.isTypeReferenceNode(node) || ts.isTypeOperatorNode(node);
    return named && this.#valuesOf(node) !== undefined;
  }

  createType(node) {
    const each = this.#valuesOf(node).map((value) => (value === null ? new NullType() : new LiteralType(value)));
    return each.length === 1 ? each[0] : new UnionType(each);
  }
}

/** JSON Schema of every class of the contract, and of what they are made of. */
function schemas() {
  const contract = join(root, 'packages/contract');
  const config = {
    ...DEFAULT_CONFIG,
    path: join(contract, 'src/index.ts'),
    tsconfig: join(contract, 'tsconfig.json'),
    skipTypeCheck: true,
    additionalProperties: false,
    encodeRefs: false,
  };
  const program = createProgram(config);
  const parser = createParser(program, config, (chain) => chain.addNodeParser(new Words(program.getTypeChecker())));
  const generator = new SchemaGenerator(program, parser, createFormatter(config), config);
  const names = filesUnder(join(contract, 'src')).flatMap((file) =>
    classesOf(file)
      .filter(({ modifiers = [] }) => modifiers.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword))
      .map(({ name }) => name.text),
  );
  return Object.assign({}, ...names.map((name) => generator.createSchema(name).definitions));
}

/** The first paragraph of the comment on each method of a controller, by `Class_method` as OpenAPI has it. */
function purposes() {
  const said = {};
  for (const file of filesUnder(join(root, 'apps/server/src')).filter((name) =>
    /ontroller|openapi|demoPeople/.test(name),
  ))
    for (const { name, members } of classesOf(file))
      for (const member of members.filter(ts.isMethodDeclaration)) {
        const comment = ts.getJSDocCommentsAndTags(member).find(ts.isJSDoc)?.comment;
        const text = (typeof comment === 'string' ? comment : ts.getTextOfJSDocComment(comment)) ?? '';
        const [first] = text.split('\n\n');
        if (first) said[`${name.text}_${member.name.getText()}`] = first.replaceAll(/\s*\n\s*/g, ' ');
      }
  return said;
}

/** Tuples as OpenAPI 3.1 has them, and references within the description. */
const inDescription = (value) => {
  if (Array.isArray(value)) return value.map(inDescription);
  if (value === null || typeof value !== 'object') return value;
  const { items, additionalItems, $ref, ...others } = value;
  return {
    ...Object.fromEntries(Object.entries(others).map(([key, inner]) => [key, inDescription(inner)])),
    ...($ref ? { $ref: $ref.replace('#/definitions/', '#/components/schemas/') } : {}),
    ...(Array.isArray(items) ? { prefixItems: items.map(inDescription), items: additionalItems ?? false } : {}),
    ...(items && !Array.isArray(items) ? { items: inDescription(items) } : {}),
  };
};

const file = join(root, 'apps/server/dist/described.json');
mkdirSync(dirname(file), { recursive: true });
writeFileSync(file, JSON.stringify({ schemas: inDescription(schemas()), purposes: purposes() }));
