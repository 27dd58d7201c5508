export { layersOfFinding, severityOf, type Finding, type Severity } from './finding';
export { describeFinding } from './words';
