export {
  REPORT_SECTIONS,
  type Letterhead,
  type Report,
  type ReportOrder,
  type ReportSection,
  type ReportSectionKey,
} from './report';
export { reportOf } from './report-of';
export { reportPdf } from './report-pdf';
