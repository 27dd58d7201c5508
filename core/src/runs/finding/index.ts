export { describeFinding, severityOf, layersOfFinding, type Finding, type Severity } from './finding';
