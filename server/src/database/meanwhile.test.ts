import { expect, test } from '@jest/globals';
import { meanwhile } from './meanwhile.ts';

test('work begins once the statement is sent, and both are answered', async () => {
  const order: string[] = [];
  const statement = async (): Promise<string> => {
    await Promise.resolve();
    order.push('sent');
    await new Promise((resolve) => setTimeout(resolve, 5));
    order.push('answered');
    return 'rows';
  };
  expect(await meanwhile(statement(), () => order.push('worked'))).toEqual(['rows', 2]);
  expect(order).toEqual(['sent', 'worked', 'answered']);
});

test('a statement that fails while the work goes on is told, and so is work that fails', async () => {
  await expect(meanwhile(Promise.reject(new Error('refused')), () => 'done')).rejects.toThrow('refused');
  await expect(meanwhile(Promise.resolve(1), () => { throw new Error('stumbled'); })).rejects.toThrow('stumbled');
});
