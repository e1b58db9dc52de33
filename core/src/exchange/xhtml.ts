import type { Element, ElementContent, Properties, Root, Text } from 'hast';
import { toHtml } from 'hast-util-to-html';
import { toMdast } from 'hast-util-to-mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown, gfmToMarkdown } from 'mdast-util-gfm';
import { toHast } from 'mdast-util-to-hast';
import { toMarkdown } from 'mdast-util-to-markdown';
import { gfm } from 'micromark-extension-gfm';
import { isTooDeep } from './markdownNesting.ts';
import { attributeText, type XmlElement } from './xmlTree.ts';

/** The XHTML of a ReqIF attribute as Markdown. Objects and styles are dropped; their texts stay. */
export function markdownOfXhtml(element: XmlElement): string {
  const plain = plainOf(element);
  if (plain !== null) return plain;
  const root: Root = { type: 'root', children: element.children.flatMap(hastOf) };
  return toMarkdown(toMdast(root), { extensions: [gfmToMarkdown()], bullet: '-', emphasis: '*', rule: '-' }).trim();
}

/** Text in nothing but a div or a paragraph, without a sign that Markdown would read: taken as it stands, quickly. */
function plainOf(element: XmlElement): string | null {
  const [child, ...rest] = element.children.filter((c) => typeof c !== 'string' || c.trim() !== '');
  if (child === undefined) return '';
  if (rest.length > 0) return null;
  if (typeof child !== 'string') return child.name === 'div' || child.name === 'p' ? plainOf(child) : null;
  const text = child.replaceAll(/\s+/g, ' ').trim();
  return /[\\`*_[\]<>&~#|!]|^(?:[-+]|\d+[.)])\s|:\/\/|www\.|@/.test(text) ? null : text;
}

const KEPT: ReadonlySet<string> = new Set('href src alt title colspan rowspan'.split(' '));

function hastOf(node: XmlElement | string): ElementContent[] {
  if (typeof node === 'string') return [{ type: 'text', value: node }];
  if (node.name === 'object') return node.children.flatMap(hastOf);
  const properties: Properties = Object.fromEntries(Object.entries(node.attributes).filter(([name]) => KEPT.has(name)));
  const element: Element = { type: 'element', tagName: node.name, properties, children: node.children.flatMap(hastOf) };
  return [element];
}

/** Markdown as the content of an XHTML div, for a ReqIF attribute. HTML in it becomes text; what is nested too deep to be read stays as it is written. */
export function xhtmlOfMarkdown(markdown: string): string {
  if (isTooDeep(markdown)) return `<xhtml:pre>${attributeText(markdown)}</xhtml:pre>`;
  const tree = toHast(fromMarkdown(markdown, { extensions: [gfm()], mdastExtensions: [gfmFromMarkdown()] }), { handlers: { html: (_, node: { value: string }): Text => ({ type: 'text', value: node.value }) } });
  return toHtml(prefixed(tree as Root), { closeSelfClosing: true, closeEmptyElements: true, tightSelfClosing: true, characterReferences: { useNamedReferences: false }, omitOptionalTags: false });
}

/** ReqIF wants XHTML's elements in its namespace. */
function prefixed(root: Root): Root {
  const visit = (node: ElementContent): ElementContent => (node.type === 'element' ? { ...node, tagName: `xhtml:${node.tagName}`, properties: kept(node.properties), children: node.children.map(visit) } : node);
  return { ...root, children: root.children.flatMap((node) => (node.type === 'element' || node.type === 'text' ? [visit(node)] : [])) };
}

function kept(properties: Properties): Properties {
  return Object.fromEntries(Object.entries(properties).filter(([name]) => KEPT.has(name.toLowerCase())));
}
