export { countSchema, whenSchema, idSchema, nameSchema } from './ids';
