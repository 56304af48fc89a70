import { parseSync, visitorKeys } from "oxc-parser";

/** Ways to break a token, by what it is. */
const TURNED = new Map([
  ["<", "<="],
  ["<=", "<"],
  [">", ">="],
  [">=", ">"],
  ["===", "!=="],
  ["!==", "==="],
  ["&&", "||"],
  ["||", "&&"],
  ["+", "-"],
  ["-", "+"],
  ["*", "+"],
  ["true", "false"],
  ["false", "true"],
]);

/** What stands around a value without being a type itself: the rest of what begins so is for the compiler only. */
const AROUND_VALUES = new Set([
  "TSAsExpression",
  "TSSatisfiesExpression",
  "TSNonNullExpression",
  "TSParameterProperty",
]);

const isType = ({ type }) => (type.startsWith("TS") && !AROUND_VALUES.has(type)) || type === "ImportDeclaration";
const isText = ({ type, value, expressions }) =>
  (type === "Literal" && typeof value === "string") || (type === "TemplateLiteral" && expressions.length > 0);
/** @param {{ type: string, expression?: { type: string } }} node */
const isCall = ({ type, expression }) =>
  type === "CallExpression" || (type === "ChainExpression" && expression?.type === "CallExpression");

/**
 * Every place of a source at which a fault can be planted: from where to where, and what stands there then.
 * @param {string} text
 * @param {string} file its name, for the parser
 * @returns {{ from: number, to: number, text: string }[]}
 */
export function sitesOf(text, file) {
  const sites = [];
  const add = (from, to, is) => sites.push({ from, to, text: is });
  const visit = (node, parent) => {
    if (isType(node)) return;
    const { type, start, end } = node;
    if (type === "BinaryExpression" || type === "LogicalExpression") {
      const { left, right, operator } = node;
      const turned = TURNED.get(operator);
      const at = text.indexOf(operator, left.end);
      if (turned && !(operator === "+" && (isText(left) || isText(right)))) add(at, at + operator.length, turned);
    } else if (type === "Literal" && typeof node.value === "boolean") add(start, end, TURNED.get(node.raw));
    else if (type === "Literal" && typeof node.value === "number" && parent.type !== "Property")
      add(start, end, String(node.value + 1));
    else if (type === "IfStatement" && node.alternate === null) add(start, end, ";");
    else if (type === "ExpressionStatement" && isCall(node.expression)) add(start, end, ";");
    for (const key of visitorKeys[type] ?? [])
      for (const child of [node[key]].flat()) if (child && key !== "superClass") visit(child, node);
  };
  visit(parseSync(file, text).program, null);
  return sites;
}
