export { reachabilityOf, type Reachability } from './reachability';
export { ReachedFrom } from './reached-from';
