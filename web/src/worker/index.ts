export { useBeside } from './useBeside.ts';
export { Receiver, Sender, type Parcel } from './parcels.ts';
