import { api, fileName, getPlan, planCsv, route } from '@/server';

export const GET = route(api.export, async ({ params, query }) => {
  const { plan } = await getPlan(params.id);
  return query.as === 'csv'
    ? { file: planCsv(plan), type: 'text/csv; charset=utf-8', name: fileName(plan, 'csv') }
    : { file: JSON.stringify(plan, null, 2), type: 'application/json', name: fileName(plan, 'json') };
});
