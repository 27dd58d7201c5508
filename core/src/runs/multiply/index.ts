export { planMultiply, replayMultiply, multiplyReads, broughtCopies, layersOfCopies } from './multiply';
export { groupId as groupOfRun } from './copies';
export { copyPlaceWords, multiplyParts } from './words';
