export { reachabilityOf, type Reachability } from '../office/reachability';
export { ReachedFrom } from '../console/reached-from';
