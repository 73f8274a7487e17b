export { PeopleScreen } from './people-screen';
