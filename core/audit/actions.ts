/**
 * What the audit trail says of each command, in the past tense, and which kind of document it is about. A command that is not here
 * is shown by its name; a test goes through all that are.
 */
export const ACTIONS = {
  'start-application': ['Application started', 'application'],
  'save-application': ['Application saved', 'application'],
  'delete-application': ['Draft application deleted', 'application'],
  'submit-application': ['Application submitted', 'application'],
  'return-application': ['Application returned to draft', 'application'],
  'certify-application': ['Application certified', 'application'],
  'uncertify-application': ['Certification reversed', 'application'],
  'record-receipt': ['Receipt recorded', 'application'],
  'release-retention': ['Retention released', 'job'],
  'load-sample-book': ['Sample company loaded', 'company'],
  'import-book': ['Book imported', 'company'],
  'add-change': ['Change order raised', 'change'],
  'save-change': ['Change order saved', 'change'],
  'delete-change': ['Draft change order deleted', 'change'],
  'agree-change': ['Change order raised, issued and approved', 'change'],
  'issue-change': ['Change order issued', 'change'],
  'decide-change': ['Change order decided', 'change'],
  'send-change': ['Change order prepared for the client', 'change'],
  'transfer-budget': ['Budget transferred', 'job'],
  'save-company': ['Company saved', 'company'],
  'save-logo': ['Logo changed', 'company'],
  'remove-logo': ['Logo removed', 'company'],
  'add-client': ['Client added', 'master'],
  'add-cost-codes': ['Cost codes added', 'master'],
  'add-master': ['Added', 'master'],
  'save-master': ['Changed', 'master'],
  'delete-master': ['Deleted', 'master'],
  'merge-master': ['Merged', 'master'],
  'post-costs': ['Costs posted', 'posting'],
  'correct-costs': ['Cost reversed or moved', 'posting'],
  install: ['Material installed', 'posting'],
  'undo-installation': ['Installation undone', 'posting'],
  'reverse-posting': ['Document reversed', 'posting'],
  'start-estimate': ['Estimate started', 'estimate'],
  'save-estimate': ['Estimate saved', 'estimate'],
  'delete-estimate': ['Estimate deleted', 'estimate'],
  'choose-estimate': ['Estimate chosen to be offered', 'estimate'],
  'send-estimate': ['Estimate marked as sent', 'estimate'],
  'reprice-estimate': ['Prices of the estimate updated', 'estimate'],
  'award-job': ['Job awarded from an estimate', 'job'],
  'save-forecast': ['Forecast saved', 'job'],
  'save-billing-schedule': ['Billing schedule saved', 'job'],
  'save-job-facts': ['Job details saved', 'job'],
  'save-people': ['People saved', 'job'],
  'save-checklist': ['Checklist saved', 'job'],
  'save-check-template': ['Checklist template saved', 'company'],
  'add-event': ['Event noted', 'job'],
  'attach-file': ['File attached', 'job'],
  'create-job': ['Job set up', 'job'],
  'move-job': ['Status changed', 'job'],
  'lock-job': ['Job locked or unlocked', 'job'],
  'delete-job': ['Job deleted', 'job'],
  'correct-setup': ['Schedule and budget corrected', 'job'],
  'save-job-template': ['Job template saved', 'company'],
  'remove-job-template': ['Job template removed', 'company'],
  'add-draft': ['Job draft started', 'company'],
  'save-draft': ['Job draft saved', 'company'],
  'delete-draft': ['Job draft deleted', 'company'],
  'save-plan': ['Plan saved', 'job'],
  'save-price-items': ['Prices saved', 'price'],
  'import-prices': ['Prices imported', 'price'],
  'remove-price-item': ['Price removed', 'price'],
  'move-prices': ['Prices adjusted', 'price'],
  'save-build-up': ['Build-up saved', 'price'],
  'remove-build-up': ['Build-up removed', 'price'],
  'add-quotation': ['Quotation started', 'quotation'],
  'save-quotation': ['Quotation saved', 'quotation'],
  'delete-quotation': ['Draft quotation deleted', 'quotation'],
  'deliver-message': ['Message handed to the mail server', 'offer'],
  'send-quotation': ['Quotation prepared for the client', 'quotation'],
  'save-terms': ['Terms saved', 'company'],
  'remove-terms': ['Terms removed', 'company'],
  'reply-to-question': ['Question answered', 'offer'],
  'ask-about-offer': ['Question asked', 'offer'],
  'accept-offer': ['Offer accepted', 'offer'],
  'decline-offer': ['Offer declined', 'offer'],
} as const satisfies Record<string, readonly [string, string]>;

export type AuditAbout = (typeof ACTIONS)[keyof typeof ACTIONS][1];
export const ABOUTS = [...new Set(Object.values(ACTIONS).map(([, about]) => about))] as [AuditAbout, ...AuditAbout[]];

/** What a command did, in words. */
export function actionOf(command: string): string {
  return Object.hasOwn(ACTIONS, command) ? ACTIONS[command as keyof typeof ACTIONS][0] : command.replaceAll('-', ' ');
}

/** The commands about a kind of document. */
export function commandsAbout(about: AuditAbout): string[] {
  return Object.entries(ACTIONS).flatMap(([command, [, it]]) => (it === about ? [command] : []));
}
