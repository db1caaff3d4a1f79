import type { BuildWrite } from '@zero-lash/contract/builds';
import { api, write } from '../app/api.ts';
import { buildWriteEndpoint } from '../builds/endpoints.ts';

const rechecksApi = api.injectEndpoints({
  endpoints: (build) => ({
    closeRecheck: build.mutation<BuildWrite, { recheckId: string }>(
      buildWriteEndpoint(({ recheckId }) => write('POST', `rechecks/${recheckId}/outcome`)),
    ),
  }),
});

export const { useCloseRecheckMutation } = rechecksApi;
