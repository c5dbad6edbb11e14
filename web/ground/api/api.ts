import { createApi, fetchBaseQuery, type BaseQueryApi } from '@reduxjs/toolkit/query/react';
import { CALLS } from '../../../wire/calls';
import type { FaultReply } from '../../../wire/fault';
import { approvalNeeded } from '../approvals/approvalSlice';
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
  const { code, message } = (reply.error?.data ?? {}) as Partial<FaultReply>;
  if (code === 'needs-approval' && sent.asking === undefined) context.dispatch(approvalNeeded({ sent, message: message ?? '' }));
  return reply;
};

const asked: Base = async (sent, context, extra) => {
  const { method, url, params, body } = sent;
  const request = { method, url, params, body };
  if (sent.method === 'GET') return send(request, context, extra);
  const id = requestIds.idOf(sent);
  const asking: Record<string, string> =
    sent.asking === undefined ? {} : { 'Ledrin-Asks-Approval': encodeURIComponent(sent.asking) };
  const reply = await send({ ...request, headers: { 'Idempotency-Key': id, ...asking } }, context, extra);
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
  endpoints: (build) => ({
    ...endpointsOf(CALLS, build),
    /** Sends a command as it was sent before: to ask for its approval, or to carry it out once that is given. */
    sendAgain: build.mutation<unknown, Sent>({
      query: (sent) => sent,
      invalidatesTags: (_result, refused) => (refused ? [] : ['books']),
    }),
  }),
});

export const {
  useAcknowledgeApprovalMutation,
  useAbsencesQuery,
  useAcceptInvitationMutation,
  useAcceptOfferMutation,
  useAchievedHoursQuery,
  useAchievedQuery,
  useAddAbsenceMutation,
  useAddChangeMutation,
  useAddClientMutation,
  useAddCostCodesMutation,
  useAddEventMutation,
  useAddMasterMutation,
  useAddQuotationMutation,
  useAddSheetMutation,
  useAgreeChangeMutation,
  useAnswerQuery,
  useApplicationQuery,
  useApprovalQuery,
  useApprovalRulesQuery,
  useApprovalsQuery,
  useApproveTimeMutation,
  useAskAboutOfferMutation,
  useAttachFileMutation,
  useAuditQuery,
  useAwardJobMutation,
  useBeginSecondFactorMutation,
  useBillAboveMutation,
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
  useCorrectTimeMutation,
  useCostPageQuery,
  useCostSubtotalsQuery,
  useCostTotalsQuery,
  useCreateJobMutation,
  useDayRegisterQuery,
  useDaySheetQuery,
  useDaysOfWeekSheetQuery,
  useDecideApprovalMutation,
  useDecideChangeMutation,
  useDeclineOfferMutation,
  useDeleteApplicationMutation,
  useDeleteChangeMutation,
  useDeleteDaySheetMutation,
  useDeleteDraftMutation,
  useDeleteEstimateMutation,
  useDeleteJobMutation,
  useDeleteMasterMutation,
  useDeleteQuotationMutation,
  useDeliverMessageMutation,
  useDemoSignInMutation,
  useEndAbsenceMutation,
  useEndSecondFactorMutation,
  useEndSessionMutation,
  useEndTenderMutation,
  useEstimateListQuery,
  useEstimateQuery,
  useEstimateVersusActualQuery,
  useFindRateQuery,
  useForecastQuery,
  useHandOverMutation,
  useHoursOfWeekQuery,
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
  useLabourByCodeQuery,
  useLabourListQuery,
  useLabourOfJobQuery,
  useLazyCostPageQuery,
  useLazyEstimateQuery,
  useLazyJobSetupQuery,
  useLazyRepricingQuery,
  useListsQuery,
  useLoadSampleBookMutation,
  useLockJobMutation,
  useMakeAnonymousMutation,
  useMakeOwnerMutation,
  useMastersQuery,
  useMergeMasterMutation,
  useMergePreviewQuery,
  useMessagesQuery,
  useMoveJobMutation,
  useMovePricesMutation,
  useNarrowingQuery,
  useOpenPayrollQuery,
  usePayrollRunQuery,
  usePayrollRunsQuery,
  usePayrollSettingQuery,
  usePeopleAtWorkQuery,
  usePlanQuery,
  usePostCostsMutation,
  usePostTimeMutation,
  usePostingQuery,
  usePostingsQuery,
  usePreviewCertificationMutation,
  usePreviewCorrectionMutation,
  usePreviewCostsMutation,
  usePreviewImportMutation,
  usePreviewLabourListMutation,
  usePreviewPriceMoveMutation,
  usePreviewTimeCorrectionMutation,
  usePreviewTimeMutation,
  usePriceBookQuery,
  usePriceHistoryQuery,
  useQuotationListQuery,
  useQuotationQuery,
  useQuotationsQuery,
  useReadSheetMutation,
  useReadyTimeQuery,
  useRecentCodingsQuery,
  useRecordReceiptMutation,
  useReleaseRetentionMutation,
  useRemoveBuildUpMutation,
  useRemoveJobTemplateMutation,
  useRemoveLogoMutation,
  useRemoveTermsMutation,
  useReplyToQuestionMutation,
  useReportQuery,
  useRepriceEstimateMutation,
  useRepricingQuery,
  useRestrictJobMutation,
  useReturnApplicationMutation,
  useReturnTimeMutation,
  useReversePostingMutation,
  useSaveApplicationMutation,
  useSaveApprovalRulesMutation,
  useSaveBillingScheduleMutation,
  useSaveBuildUpMutation,
  useSaveChangeMutation,
  useSaveCheckTemplateMutation,
  useSaveChecklistMutation,
  useSaveCompanyMutation,
  useSaveEstimateMutation,
  useSaveForecastMutation,
  useSaveJobFactsMutation,
  useSaveJobTemplateMutation,
  useSaveLabourListMutation,
  useSaveLogoMutation,
  useSaveMasterMutation,
  useSaveNarrowingMutation,
  useSavePayrollSettingMutation,
  useSavePeopleMutation,
  useSavePlanMutation,
  useSavePriceItemsMutation,
  useSaveQuotationMutation,
  useSaveSheetMutation,
  useSaveTermsMutation,
  useSaveUserMutation,
  useSendAgainMutation,
  useSendChangeMutation,
  useSendEstimateMutation,
  useSendQuotationMutation,
  useSessionQuery,
  useSessionsQuery,
  useShowOnSiteMutation,
  useSignInMutation,
  useSignOutMutation,
  useSiteJobQuery,
  useSiteJobsQuery,
  useStartApplicationMutation,
  useStartEstimateMutation,
  useSubmitApplicationMutation,
  useTakeDayHoursMutation,
  useTaskHoursQuery,
  useTendersQuery,
  useTermsQuery,
  useTimeListsQuery,
  useTimeRemarksMutation,
  useTimeRateQuery,
  useTransferBudgetMutation,
  useTransfersQuery,
  useUncertifyApplicationMutation,
  useUndoInstallationMutation,
  useUninstalledQuery,
  useUsersQuery,
  useSignInFailuresQuery,
  useWageStatementQuery,
  useWaitingQuery,
  useWeekRegisterQuery,
  useWeekSheetQuery,
  useWithdrawApprovalMutation,
  useWorkingsQuery,
} = api;
