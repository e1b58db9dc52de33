import { saveFile } from '../../look/index.ts';
import { writeCsv } from '@caderno/core/exchange';
import { tableAsGrid, type DecisionTableModel } from '@caderno/core/conditions';

export function saveTableAsCsv(name: string, model: DecisionTableModel): void {
  saveFile(`${name}.csv`, new Blob([writeCsv(tableAsGrid(model))], { type: 'text/csv' }));
}
