import { dispatch } from '@/server';

/** The whole of the HTTP interface is one handler, which the contract leads on: a path without an operation is a problem too. */
export {
  dispatch as GET,
  dispatch as POST,
  dispatch as PUT,
  dispatch as PATCH,
  dispatch as DELETE,
  dispatch as OPTIONS,
};
