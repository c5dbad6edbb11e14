/** What the sample company's jobs are like. Months count from 0, the first of the eighteen. */
export interface SampleJob {
  job: string;
  name: string;
  customer: string;
  status: 'tender' | 'awarded' | 'on-site' | 'closing-out' | 'closed';
  manager: string;
  site: string;
  contract: string;
  /** Contract sum in pounds. */
  sum: number;
  awarded: number;
  starts: number;
  months: number;
  finished?: number;
  method?: string;
  retention: { percent: number; materials?: number; stepAt?: number; stepTo?: number; applies?: 'all' | 'further'; cap?: number };
  terms?: number;
  /** Share of the contract sum the estimator meant to spend. */
  costShare: number;
  /** Actual cost as a share of what the budget allows, by cost type; 1 where it is not named. */
  runs?: { labour?: number; material?: number; subcontract?: number; equipment?: number };
  /** How far billing is ahead of the work, as a share of the contract. */
  billsAhead?: number;
  /** Days the client takes after certifying; null never pays within the sample. */
  paysAfter: number | null;
  sections: { name: string; kind: keyof typeof WORKS; share: number }[];
}

/** The parts of the trade the company does: SOV lines with their weight, and the cost that serves each. */
export const WORKS = {
  pitched: [
    ['Scaffold and edge protection', 10, '0200', { subcontract: 0.85, labour: 0.15 }],
    ['Strip and battens', 18, '0310', { labour: 0.6, material: 0.4 }],
    ['Slating', 42, '0350', { labour: 0.45, material: 0.55 }],
    ['Leadwork and flashings', 18, '0520', { labour: 0.4, material: 0.6 }],
    ['Rainwater goods', 12, '0510', { labour: 0.35, material: 0.65 }],
  ],
  flat: [
    ['Deck preparation', 14, '0310', { labour: 0.65, equipment: 0.35 }],
    ['Insulation', 30, '0320', { labour: 0.25, material: 0.75 }],
    ['Membrane', 38, '0330', { labour: 0.4, material: 0.6 }],
    ['Edge trims and outlets', 18, '0510', { labour: 0.4, material: 0.6 }],
  ],
  seam: [
    ['Structural deck', 24, '0310', { labour: 0.35, material: 0.65 }],
    ['Insulation and vapour control', 22, '0320', { labour: 0.3, material: 0.7 }],
    ['Standing seam sheets', 42, '0340', { labour: 0.35, material: 0.65 }],
    ['Flashings and fall arrest', 12, '0520', { labour: 0.4, material: 0.4, subcontract: 0.2 }],
  ],
  facade: [
    ['Brackets and rails', 22, '0410', { labour: 0.45, material: 0.55 }],
    ['Insulation and breather membrane', 16, '0320', { labour: 0.35, material: 0.65 }],
    ['Rainscreen panels', 46, '0420', { labour: 0.3, material: 0.7 }],
    ['Mast climbers', 16, '0200', { equipment: 0.9, labour: 0.1 }],
  ],
  glazing: [
    ['Curtain wall design and tests', 8, '0430', { other: 1 }],
    ['Curtain wall frames', 34, '0430', { subcontract: 0.7, material: 0.3 }],
    ['Glass units', 44, '0440', { material: 0.85, labour: 0.15 }],
    ['Seals, gaskets and handover', 14, '0610', { labour: 0.7, material: 0.3 }],
  ],
} as const satisfies Record<string, readonly (readonly [string, number, string, Partial<Record<'labour' | 'material' | 'subcontract' | 'equipment' | 'other', number>>])[]>;

export const SAMPLE_JOBS: readonly SampleJob[] = [
  { job: '2098', name: 'Pell Street library, reroofing', customer: 'TARNWICK', status: 'closed', manager: 'Ines Tolland', site: 'Pell Street, Tarnwick', contract: 'TBE/29/114', sum: 248_000, awarded: 0, starts: 0, months: 7, finished: 8,
    retention: { percent: 5 }, costShare: 0.81, paysAfter: 24, sections: [{ name: '', kind: 'pitched', share: 1 }] },
  { job: '2101', name: 'Ostrand retail park, units 4 to 9', customer: 'OSTSTRAND', status: 'closing-out', manager: 'Piotr Wakeham', site: 'Ostrand Way, Merrowby', contract: 'ORP-0457', sum: 1_186_400, awarded: 0, starts: 1, months: 11, finished: 13,
    retention: { percent: 5, stepAt: 50, stepTo: 2.5, applies: 'all' }, costShare: 0.83, runs: { labour: 1.03 }, paysAfter: 31, sections: [{ name: 'Roof', kind: 'seam', share: 0.6 }, { name: 'Walls', kind: 'facade', share: 0.4 }] },
  { job: '2104', name: 'Quillane Mill conversion, phase 1', customer: 'QUILLANE', status: 'on-site', manager: 'Adaeze Firth', site: 'Mill Lane, Quillane', contract: 'QD/M1/22', sum: 2_412_000, awarded: 3, starts: 4, months: 18,
    retention: { percent: 5, materials: 10, cap: 3 }, costShare: 0.82, billsAhead: 0.11, paysAfter: 28, sections: [{ name: 'Mill', kind: 'pitched', share: 0.55 }, { name: 'Stair towers', kind: 'glazing', share: 0.45 }] },
  { job: '2105', name: 'Merrowby infirmary, ward block C', customer: 'MERROWBY', status: 'on-site', manager: 'Ines Tolland', site: 'Infirmary Road, Merrowby', contract: 'MHT-C-031', sum: 3_240_000, awarded: 4, starts: 5, months: 17,
    retention: { percent: 3 }, costShare: 0.85, billsAhead: -0.1, paysAfter: 45, sections: [{ name: 'Level 1–4', kind: 'facade', share: 0.62 }, { name: 'Roof', kind: 'flat', share: 0.38 }] },
  { job: '2107', name: 'Fennick academy, sports hall and teaching block roofs', customer: 'FENNICK', status: 'on-site', manager: 'Rowan Castell', site: 'Academy Drive, Fennick', contract: 'FSP/2030/7', sum: 864_500, awarded: 6, starts: 7, months: 12,
    method: 'hours', retention: { percent: 5, stepAt: 60, stepTo: 1.5, applies: 'further' }, costShare: 0.82, runs: { labour: 1.42, material: 0.98 }, paysAfter: 33,
    sections: [{ name: 'Sports hall', kind: 'seam', share: 0.55 }, { name: 'Teaching block', kind: 'flat', share: 0.45 }] },
  { job: '2108', name: 'Hollin Quay tower, lower cladding', customer: 'HOLLIN', status: 'on-site', manager: 'Piotr Wakeham', site: 'Hollin Quay, Ostrand', contract: 'HT/HQ/SC-12', sum: 1_958_700, awarded: 5, starts: 6, months: 14,
    retention: { percent: 5 }, costShare: 0.92, runs: { labour: 1.14, material: 1.17, subcontract: 1.12 }, paysAfter: 38, sections: [{ name: 'Levels 0–6', kind: 'facade', share: 0.6 }, { name: 'Podium', kind: 'glazing', share: 0.4 }] },
  { job: '2110', name: 'Tarnwick civic offices, atrium glazing', customer: 'TARNWICK', status: 'on-site', manager: 'Adaeze Firth', site: 'Market Place, Tarnwick', contract: 'TBE/30/009', sum: 1_472_000, awarded: 9, starts: 10, months: 12,
    retention: { percent: 5, materials: 0 }, costShare: 0.8, paysAfter: 26, sections: [{ name: 'Atrium', kind: 'glazing', share: 1 }] },
  { job: '2111', name: 'Threap Road depot, over-roofing', customer: 'HOLLIN', status: 'on-site', manager: 'Rowan Castell', site: 'Threap Road, Hollin', contract: 'HT/TR/SC-03', sum: 612_300, awarded: 10, starts: 11, months: 10,
    method: 'physical', retention: { percent: 5 }, costShare: 0.79, paysAfter: 62, sections: [{ name: 'Shed 1', kind: 'seam', share: 0.5 }, { name: 'Shed 2', kind: 'seam', share: 0.5 }] },
  { job: '2113', name: 'Lantern House, terrace membranes', customer: 'QUILLANE', status: 'on-site', manager: 'Ines Tolland', site: 'Lantern Hill, Quillane', contract: 'QD/LH/4', sum: 138_900, awarded: 14, starts: 14, months: 5,
    method: 'completed', retention: { percent: 5 }, costShare: 0.77, paysAfter: 30, sections: [{ name: '', kind: 'flat', share: 1 }] },
  { job: '2114', name: 'Saltmarsh primary school, classroom roofs', customer: 'FENNICK', status: 'on-site', manager: 'Rowan Castell', site: 'Saltmarsh Lane, Fennick', contract: 'FSP/2030/15', sum: 426_800, awarded: 12, starts: 13, months: 8,
    retention: { percent: 5 }, costShare: 0.8, runs: { material: 1.02 }, paysAfter: 29, sections: [{ name: 'Block A', kind: 'pitched', share: 0.58 }, { name: 'Block B', kind: 'flat', share: 0.42 }] },
  { job: '2116', name: 'Merrowby infirmary, energy centre', customer: 'MERROWBY', status: 'awarded', manager: 'Ines Tolland', site: 'Infirmary Road, Merrowby', contract: 'MHT-E-004', sum: 735_600, awarded: 17, starts: 18, months: 9,
    retention: { percent: 3 }, costShare: 0.81, paysAfter: null, sections: [{ name: 'Plant deck', kind: 'flat', share: 0.45 }, { name: 'Screens', kind: 'facade', share: 0.55 }] },
  { job: '2117', name: 'Ostrand ferry terminal, canopy and concourse envelope', customer: 'OSTSTRAND', status: 'tender', manager: 'Adaeze Firth', site: 'Ferry Road, Ostrand', contract: '', sum: 12_840_000, awarded: -1, starts: 20, months: 16,
    retention: { percent: 5, stepAt: 50, stepTo: 3, applies: 'further' }, costShare: 0.84, paysAfter: null, sections: [{ name: 'Canopy', kind: 'seam', share: 0.5 }, { name: 'Concourse', kind: 'glazing', share: 0.5 }] },
];

export const CUSTOMERS = [
  ['TARNWICK', 'Tarnwick Borough Estates', 'Hester Lowe', 'accounts@tarnwick-estates.example', '01 555 0110', 'Town Hall, Market Place, Tarnwick', ''],
  ['OSTSTRAND', 'Ostrand Retail Parks', 'Milo Varga', 'payables@ostrand-parks.example', '01 555 0122', 'Ostrand Way, Merrowby', '45'],
  ['QUILLANE', 'Quillane Developments', 'Ida Brask', 'projects@quillane.example', '01 555 0135', 'The Counting House, Quillane', '28'],
  ['MERROWBY', 'Merrowby Health Trust', 'Sunil Achterberg', 'capital@merrowby-health.example', '01 555 0149', 'Infirmary Road, Merrowby', '30'],
  ['FENNICK', 'Fennick Schools Partnership', 'Corin Yate', 'estates@fennick-schools.example', '01 555 0151', 'Academy Drive, Fennick', ''],
  ['HOLLIN', 'Hollin & Threap Construction', 'Berta Quist', 'subcontract.accounts@hollin-threap.example', '01 555 0168', 'Threap Road, Hollin', '35'],
] as const;

export const VENDORS = [
  ['SLATEWRIGHT', 'Slatewright Supplies', 'supplier'], ['PURLINPIKE', 'Purlin & Pike Metals', 'supplier'], ['GLIMMER', 'Glimmerstone Glass', 'supplier'], ['CORRIE', 'Corrie Insulation', 'supplier'],
  ['HIGHREACH', 'Highreach Scaffold Hire', 'subcontractor'], ['DUNMALLOW', 'Dunmallow Frames', 'subcontractor'], ['BRIGHTEDGE', 'Brightedge Access Plant', 'supplier'], ['TESTHOUSE', 'Norrel Test House', 'supplier'],
] as const;

export const COST_CODES = [
  ['0100', 'Preliminaries', 'week'], ['0200', 'Scaffold and access', 'm2'], ['0310', 'Decks and battens', 'm2'], ['0320', 'Insulation', 'm2'], ['0330', 'Membranes', 'm2'], ['0340', 'Standing seam', 'm2'],
  ['0350', 'Slating', 'm2'], ['0410', 'Rainscreen framing', 'm2'], ['0420', 'Rainscreen panels', 'm2'], ['0430', 'Curtain wall', 'm2'], ['0440', 'Glass', 'm2'], ['0510', 'Rainwater goods and trims', 'm'],
  ['0520', 'Leadwork and flashings', 'm'], ['0610', 'Snagging and handover', 'item'], ['0700', 'Site management', 'week'],
] as const;

/** Who is paid for a kind of cost on a code. */
export const PARTIES: Record<string, string> = {
  '0200 subcontract': 'HIGHREACH', '0430 subcontract': 'DUNMALLOW', '0350 material': 'SLATEWRIGHT', '0310 material': 'PURLINPIKE', '0340 material': 'PURLINPIKE', '0410 material': 'PURLINPIKE',
  '0420 material': 'PURLINPIKE', '0440 material': 'GLIMMER', '0430 material': 'GLIMMER', '0320 material': 'CORRIE', '0330 material': 'CORRIE', equipment: 'BRIGHTEDGE', other: 'TESTHOUSE',
};

export const CREWS = ['Crew Aldous', 'Crew Benning', 'Crew Castell', 'Crew Dray'] as const;
