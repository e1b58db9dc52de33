import { readFeature, type ReadFeature } from '@caderno/core/scenarios';
import { StateField } from '@codemirror/state';

/** What the text says, line by line, as it stands in the editor now. */
export const readField = StateField.define<ReadFeature>({
  create: (state) => readFeature(state.doc.toString()),
  update: (read, transaction) => (transaction.docChanged ? readFeature(transaction.newDoc.toString()) : read),
});
