export { caseStanding } from './case-standing';
export { measureCases } from './measure-cases';
export { changeCase, closeCase, letMeasure, openCase, removeCase } from './cases';
