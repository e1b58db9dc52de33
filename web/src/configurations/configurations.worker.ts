import { madeConfigurations, type ConfigurationsAsked, type Environment, type MadeConfigurations } from '@caderno/core/configurations';
import type { Configuration } from '@caderno/core/shared';
import { expose } from 'comlink';

/** Makes configurations beside the page. */
export interface ConfigurationsWorker {
  make(environment: Environment, asked: ConfigurationsAsked, there: readonly Configuration[]): MadeConfigurations;
}

const worker: ConfigurationsWorker = { make: (environment, asked, there) => madeConfigurations(environment, asked, there, () => crypto.randomUUID().slice(0, 8)) };

expose(worker);
