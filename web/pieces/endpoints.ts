import type {
  Drawer,
  DrawerMove,
  NewCount,
  NewDelivery,
  NewMoves,
  NewOrder,
  PieceOrder,
  SystemChange,
} from '@zero-lash/contract/pieces';
import type { Feel } from '@zero-lash/contract/setting';
import { api, write } from '../app/api.ts';

export const drawerApi = api.injectEndpoints({
  endpoints: (build) => ({
    feel: build.query<Feel, void>({ query: () => 'feel' }),
    drawer: build.query<Drawer, void>({ query: () => 'drawer', providesTags: ['Drawer'] }),
    drawerMoves: build.query<DrawerMove[], string>({
      query: (system) => `drawer/moves?system=${encodeURIComponent(system)}`,
      providesTags: ['Drawer'],
    }),
    drawerOrders: build.query<PieceOrder[], void>({
      query: () => 'drawer/orders',
      providesTags: ['Drawer'],
    }),
    orderPieces: build.mutation<PieceOrder[], NewOrder>({
      query: (body) => write('POST', 'drawer/orders', body),
      invalidatesTags: ['Drawer'],
    }),
    takeDelivery: build.mutation<PieceOrder[], NewDelivery & { id: string }>({
      query: ({ id, ...body }) => write('POST', `drawer/orders/${id}/delivery`, body),
      invalidatesTags: ['Drawer'],
    }),
    movePieces: build.mutation<Drawer, NewMoves>({
      query: (body) => write('POST', 'drawer/moves', body),
      invalidatesTags: ['Drawer'],
    }),
    countPieces: build.mutation<Drawer, NewCount>({
      query: (body) => write('POST', 'drawer/counts', body),
      invalidatesTags: ['Drawer'],
    }),
    changeSystem: build.mutation<Drawer, SystemChange & { system: string }>({
      query: ({ system, ...body }) => write('PUT', `drawer/systems/${encodeURIComponent(system)}`, body),
      invalidatesTags: ['Drawer'],
    }),
  }),
});

export const {
  useFeelQuery,
  useDrawerQuery,
  useDrawerMovesQuery,
  useDrawerOrdersQuery,
  useOrderPiecesMutation,
  useTakeDeliveryMutation,
  useMovePiecesMutation,
  useCountPiecesMutation,
  useChangeSystemMutation,
} = drawerApi;
