import type { BuildWrite } from '@zero-lash/contract/builds';
import type { SignOffRequest } from '@zero-lash/contract/signoff';
import { api, write } from '../app/api.ts';
import { buildWriteEndpoint } from '../builds/endpoints.ts';

const signoffApi = api.injectEndpoints({
  endpoints: (build) => ({
    signOff: build.mutation<BuildWrite, SignOffRequest & { buildId: string }>(
      buildWriteEndpoint(({ buildId, ...body }) => write('POST', `builds/${buildId}/sign-off`, body)),
    ),
  }),
});

export const { useSignOffMutation } = signoffApi;
