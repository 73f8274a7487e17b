export { OrganisePage } from './organise-page';
