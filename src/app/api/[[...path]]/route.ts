import { dispatchRequest } from '@/server';

/** The whole of the HTTP interface is one handler, which the contract leads on: a path without an operation is a problem too. */
export {
  dispatchRequest as GET,
  dispatchRequest as POST,
  dispatchRequest as PUT,
  dispatchRequest as PATCH,
  dispatchRequest as DELETE,
  dispatchRequest as OPTIONS,
};
