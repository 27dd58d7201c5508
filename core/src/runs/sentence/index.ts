export {
  plain,
  field,
  listed,
  verbOf,
  type SentenceField,
  type SentencePart,
  type SentenceFacts,
  type Solved,
} from './sentence';
export { orderWords, momentWords, degreeWords } from './words';
export { readableTime } from './readable';
