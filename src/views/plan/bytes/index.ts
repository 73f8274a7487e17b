export { BytesPage } from './bytes-page';
