import { z } from 'zod';
import { dataSetContentSchema } from '../contract/src/content.ts';
const parameters = Array.from({ length: 30 }, (_, i) => ({ id: `p${i}`, name: `column ${i}`, type: 'text', default: '', description: '' }));
const rows = Array.from({ length: 10000 }, (_, r) => ({ id: `r${r}`, name: `row ${r}`, description: '', cells: Object.fromEntries(parameters.map((p, i) => [p.id, String((r * 31 + i * 7) % 1000)])), mark: null, aside: false }));
const content = { title: 'Large', purpose: '', parameters, rows, serves: [], module: '', tags: [] };
for (let i = 0; i < 4; i++) { const t = performance.now(); dataSetContentSchema.parse(content); console.log('parse', performance.now() - t); }
