export { BenchScreen } from './bench-screen';
export { ReportPage } from './report-page';
