export { useBeside, type Beside } from './useBeside.ts';
export { Receiver, Sender, type Parcel } from './parcels.ts';
