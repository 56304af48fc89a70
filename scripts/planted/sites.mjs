import ts from "typescript";

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

/**
 * Every place of a source at which a fault can be planted: from where to where, and what stands there then.
 * @param {string} text
 * @param {string} file its name, for the parser
 * @returns {{ from: number, to: number, text: string }[]}
 */
export function sitesOf(text, file) {
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const sites = [];
  const add = (node, to) => sites.push({ from: node.getStart(), to: node.getEnd(), text: to });
  const visit = (node) => {
    if (
      ts.isTypeNode(node) ||
      ts.isInterfaceDeclaration(node) ||
      ts.isTypeAliasDeclaration(node) ||
      ts.isImportDeclaration(node)
    )
      return;
    if (ts.isBinaryExpression(node)) {
      const turned = TURNED.get(node.operatorToken.getText());
      const isText = [node.left, node.right].some((side) => ts.isStringLiteral(side) || ts.isTemplateExpression(side));
      if (turned && !(isText && node.operatorToken.getText() === "+")) add(node.operatorToken, turned);
    } else if (node.kind === ts.SyntaxKind.TrueKeyword || node.kind === ts.SyntaxKind.FalseKeyword)
      add(node, TURNED.get(node.getText()));
    else if (ts.isNumericLiteral(node) && !ts.isPropertyAssignment(node.parent))
      add(node, String(Number(node.getText().replaceAll("_", "")) + 1));
    else if (ts.isIfStatement(node) && !node.elseStatement) add(node, ";");
    else if (ts.isExpressionStatement(node) && ts.isCallExpression(node.expression)) add(node, ";");
    ts.forEachChild(node, visit);
  };
  visit(source);
  return sites;
}
