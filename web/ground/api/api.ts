import { createApi, fetchBaseQuery, type BaseQueryApi } from '@reduxjs/toolkit/query/react';
import { CALLS } from '../../../wire/calls';
import { endpointsOf, type Base, type Sent } from './endpoints';
import { RequestIds } from './requestIds';

const send = fetchBaseQuery({ baseUrl: '/api' });
/** Random, also where the page does not come over TLS and `randomUUID` is missing. */
function newId(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((it) => it.toString(16).padStart(2, '0')).join('');
}
const requestIds = new RequestIds(newId);

const base: Base = async (sent: Sent, context, extra) => {
  const reply = await asked(sent, context, extra);
  if (reply.error?.status === SIGNED_OUT) followSignOut(context);
  return reply;
};

const asked: Base = async (sent, context, extra) => {
  const { method, url, params, body } = sent;
  const request = { method, url, params, body };
  if (sent.method === 'GET') return send(request, context, extra);
  const id = requestIds.idOf(sent);
  const reply = await send({ ...request, headers: { 'Idempotency-Key': id } }, context, extra);
  requestIds.ended(sent, typeof reply.error?.status !== 'string');
  return reply;
};

/** What the server answers to whoever is not signed in. */
const SIGNED_OUT = 401;

/** The session has ended: the pages learn of it, and ask to sign in; what is typed on them stays. Asked once, however many requests it stops. */
function followSignOut({ dispatch, getState }: BaseQueryApi): void {
  const { data } = api.endpoints.session.select()(getState() as never);
  if (data?.user) void dispatch(api.util.updateQueryData('session', undefined as never, (it) => void (it.user = null)) as never);
}

/** The one API of the pages, made from the table of calls. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: base,
  tagTypes: ['books'],
  refetchOnMountOrArgChange: 30,
  endpoints: (build) => endpointsOf(CALLS, build),
});

export const {
  useAcceptInvitationMutation,
  useAcceptOfferMutation,
  useAchievedQuery,
  useAddChangeMutation,
  useAddClientMutation,
  useAddCostCodesMutation,
  useAddDraftMutation,
  useAddEventMutation,
  useAddMasterMutation,
  useAddQuotationMutation,
  useAgreeChangeMutation,
  useAnswerQuery,
  useApplicationQuery,
  useAskAboutOfferMutation,
  useAttachFileMutation,
  useAuditQuery,
  useAwardJobMutation,
  useBeginSecondFactorMutation,
  useBillingRegisterQuery,
  useBillingScheduleQuery,
  useCertifyApplicationMutation,
  useChangeOffersQuery,
  useChangePasswordMutation,
  useChangeQuery,
  useChangeRegisterQuery,
  useChooseEstimateMutation,
  useCompanyLogoQuery,
  useConfirmSecondFactorMutation,
  useCorrectCostsMutation,
  useCorrectSetupMutation,
  useCostPageQuery,
  useCostSubtotalsQuery,
  useCostTotalsQuery,
  useCreateJobMutation,
  useDecideChangeMutation,
  useDeclineOfferMutation,
  useDeleteApplicationMutation,
  useDeleteChangeMutation,
  useDeleteDraftMutation,
  useDeleteEstimateMutation,
  useDeleteJobMutation,
  useDeleteMasterMutation,
  useDeleteQuotationMutation,
  useDeliverMessageMutation,
  useDemoSignInMutation,
  useEndSecondFactorMutation,
  useEndSessionMutation,
  useEstimateListQuery,
  useEstimateQuery,
  useEstimateVersusActualQuery,
  useForecastQuery,
  useImportBookMutation,
  useImportPricesMutation,
  useInstallMutation,
  useInvitationQuery,
  useInviteAgainMutation,
  useInviteUserMutation,
  useIssueChangeMutation,
  useJobBillingQuery,
  useJobChangesQuery,
  useJobFileQuery,
  useJobListQuery,
  useJobQuery,
  useJobSetupQuery,
  useJobTemplatesQuery,
  useLazyCostPageQuery,
  useLazyEstimateQuery,
  useLazyJobSetupQuery,
  useLazyRepricingQuery,
  useListsQuery,
  useLoadSampleBookMutation,
  useLockJobMutation,
  useMakeOwnerMutation,
  useMastersQuery,
  useMergeMasterMutation,
  useMergePreviewQuery,
  useMessagesQuery,
  useMoveJobMutation,
  useMovePricesMutation,
  usePlanQuery,
  usePostCostsMutation,
  usePostingQuery,
  usePostingsQuery,
  usePreviewCertificationMutation,
  usePreviewCorrectionMutation,
  usePreviewCostsMutation,
  usePreviewImportMutation,
  usePreviewPriceMoveMutation,
  usePriceBookQuery,
  usePriceHistoryQuery,
  useQuotationListQuery,
  useQuotationQuery,
  useQuotationsQuery,
  useReadSheetMutation,
  useRecentCodingsQuery,
  useRecordReceiptMutation,
  useReleaseRetentionMutation,
  useRemoveBuildUpMutation,
  useRemoveJobTemplateMutation,
  useRemoveLogoMutation,
  useRemovePriceItemMutation,
  useRemoveTermsMutation,
  useReplyToQuestionMutation,
  useReportQuery,
  useRepriceEstimateMutation,
  useRepricingQuery,
  useReturnApplicationMutation,
  useReversePostingMutation,
  useSaveApplicationMutation,
  useSaveBillingScheduleMutation,
  useSaveBuildUpMutation,
  useSaveChangeMutation,
  useSaveCheckTemplateMutation,
  useSaveChecklistMutation,
  useSaveCompanyMutation,
  useSaveDraftMutation,
  useSaveEstimateMutation,
  useSaveForecastMutation,
  useSaveJobFactsMutation,
  useSaveJobTemplateMutation,
  useSaveLogoMutation,
  useSaveMasterMutation,
  useSavePeopleMutation,
  useSavePlanMutation,
  useSavePriceItemsMutation,
  useSaveQuotationMutation,
  useSaveTermsMutation,
  useSaveUserMutation,
  useSendChangeMutation,
  useSendEstimateMutation,
  useSendQuotationMutation,
  useSessionQuery,
  useSessionsQuery,
  useSignInMutation,
  useSignOutMutation,
  useSiteJobQuery,
  useSiteJobsQuery,
  useStartApplicationMutation,
  useStartEstimateMutation,
  useSubmitApplicationMutation,
  useTendersQuery,
  useTermsQuery,
  useTransferBudgetMutation,
  useTransfersQuery,
  useUncertifyApplicationMutation,
  useUndoInstallationMutation,
  useUninstalledQuery,
  useUsersQuery,
  useWaitingQuery,
  useWorkingsQuery,
} = api;
