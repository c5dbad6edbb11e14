import { withSignature, type DaySheet } from '../../core/daySheets/daySheet';

const charge = { charged: true, signature: 0 };
/** A day of one person, with something in every list. */
export const workedDay: DaySheet = {
  weather: 'Rain',
  notes: 'Late start',
  hours: [{ employee: 'E1', section: 'A', costCode: '100', workKind: '', pay: null, hours: 80_000, description: '', ...charge }],
  quantities: [{ section: 'A', costCode: '100', quantity: 125_000, unit: 'm2', description: '' }],
  equipment: [{ name: 'Lift', hours: 40_000, description: '', ...charge }],
  subcontractors: [{ name: 'Rail and Rope', headcount: 3, description: '' }],
  deliveries: [{ name: 'Panel', reference: 'D 17', description: 'Membrane', photo: '', charged: false, signature: 0 }],
  visitors: [{ name: 'Mr Hale', description: 'Walked the roof' }],
  incidents: [{ name: '', description: 'A cut finger' }],
  instructions: [{ name: 'Mr Hale', description: 'Begin on the east side' }],
  photos: [],
  signatures: [],
};

/** A day with something in every list, signed by the client. */
export function signedDay() {
  const signature = { name: 'Mr Hale', office: 'Client', signedOn: '2031-03-05', strokes: '1,1 20,5;30,30' };
  return { seen: '', day: withSignature(workedDay, signature), leftOut: 'Notes, of the office: two\nlines' };
}
