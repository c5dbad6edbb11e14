import { at, present } from '../../../../core/errors/known';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import type { AwardGroup, AwardPlan } from '../../../../core/estimates/award';
import type { EstimateLine, PricedLine } from '../../../../core/estimates/estimate';
import { Choice } from '../../../kit/choice/Choice';
import { useCurrency } from '../../../ground/company';

interface GroupsProps {
  groups: readonly AwardGroup[];
  plan: AwardPlan;
  lines: readonly EstimateLine[];
  priced: readonly PricedLine[];
  /** Own weights instead of pro rata. */
  weighed: boolean;
  onGroups: (groups: AwardGroup[]) => void;
}

const NEW = 'new';

/** The groups with one line of the estimate moved to another group, or to a new one; empty groups go. */
function moved(groups: readonly AwardGroup[], lines: readonly EstimateLine[], member: string, to: string): AwardGroup[] {
  const next = groups.map((it) => ({ ...it, members: it.members.filter((own) => own !== member) }));
  const { section, description } = present(lines.find((it) => it.line === member));
  if (to === NEW) next.push({ line: freeNumber(groups), section, description, members: [member], weight: null });
  else {
    const target = at(next, Number(to));
    target.members = lines.map((it) => it.line).filter((it) => it === member || target.members.includes(it));
  }
  return next.filter((it) => it.members.length > 0);
}

/** The SOV lines to be, each with the estimate lines that go into it; a line is dragged, or sent by its list, to another. */
export function AwardGroups(props: GroupsProps) {
  const { groups, plan, lines, weighed, onGroups } = props;
  const { code } = useCurrency();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }), useSensor(KeyboardSensor));
  const move = (member: string, to: string) => onGroups(moved(groups, lines, member, to));
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over) return;
    const member = String(active.id);
    const from = groups.findIndex((it) => it.members.includes(member));
    if (String(over.id) !== String(from)) move(member, String(over.id));
  };
  return (
    <DndContext sensors={sensors} onDragEnd={drop}>
      <table className="ledger">
        <thead>
          <tr>
            <th className="w-[74px]">SOV line</th>
            <th>Description, and the estimate lines in it</th>
            {weighed && <th className="num w-[80px]">Weight</th>}
            <th className="num">Cost and markup</th>
            <th className="num">Overhead, profit</th>
            <th className="num">Difference</th>
            <th className="num">Scheduled value, {code}</th>
          </tr>
        </thead>
        <tbody>
          {groups.map((_, i) => (
            <GroupRow key={i} {...props} i={i} onMove={move} />
          ))}
        </tbody>
        <ContractSum plan={plan} weighed={weighed} />
      </table>
    </DndContext>
  );
}

function ContractSum({ plan, weighed }: Pick<GroupsProps, 'plan' | 'weighed'>) {
  const { show, code } = useCurrency();
  const total = (value: (it: AwardPlan['sov'][number]) => number) => show(plan.sov.reduce((sum, it) => sum + value(it), 0));
  return (
    <tfoot>
      <tr>
        <td colSpan={weighed ? 3 : 2}>Contract sum, {code}</td>
        <td className="num">{total((it) => it.net)}</td>
        <td className="num">{total((it) => it.spread)}</td>
        <td className="num">{total((it) => it.difference)}</td>
        <td className="num">{total((it) => it.scheduledValue)}</td>
      </tr>
    </tfoot>
  );
}

type RowProps = GroupsProps & { i: number; onMove: (member: string, to: string) => void };

/** One SOV line to be. */
function GroupRow(props: RowProps) {
  const { groups, plan, weighed, onGroups, i } = props;
  const { show } = useCurrency();
  const group = at(groups, i);
  const it = plan.sov.find(({ line }) => line === group.line);
  const set = (more: Partial<AwardGroup>) => onGroups(groups.map((own, k) => (k === i ? { ...own, ...more } : own)));
  const box = (label: string, value: string | number, onText: (text: string) => void, right = false) => (
    <input
      className={`box low ${right ? 'text-right' : ''}`}
      aria-label={`${label} of SOV line ${group.line}`}
      value={value}
      onChange={(event) => onText(event.target.value)}
    />
  );
  return (
    <Group id={String(i)}>
      <td className="pt-1 align-top">{box('Number', group.line, (line) => set({ line }))}</td>
      <td className="py-1">
        {box('Description', group.description, (description) => set({ description }))}
        <Members {...props} />
      </td>
      {weighed && (
        <td className="pt-1 align-top">
          {box('Weight', group.weight ?? '', (text) => set({ weight: /^\d{1,9}$/.test(text) ? Number(text) : null }), true)}
        </td>
      )}
      <Amount>{show(it?.net ?? 0)}</Amount>
      <Amount>{show(it?.spread ?? 0)}</Amount>
      <Amount>{show(it?.difference ?? 0)}</Amount>
      <Amount>
        <b>{show(it?.scheduledValue ?? 0)}</b>
      </Amount>
    </Group>
  );
}

/** The estimate lines of one group, each to be dragged or sent elsewhere. */
function Members({ groups, lines, priced, i, onMove }: RowProps) {
  const { show } = useCurrency();
  return (
    <ul className="m-0 list-none p-0">
      {at(groups, i).members.map((member) => {
        const place = lines.findIndex((line) => line.line === member);
        return (
          <Member key={member} id={member} text={`${member} ${at(lines, place).description}`} net={show(at(priced, place).net)}>
            <Choice
              aria-label={`SOV line of estimate line ${member}`}
              value={String(i)}
              options={[...groups.map((to, k) => [String(k), `SOV line ${to.line}`] as const), [NEW, 'new SOV line']]}
              onChange={(to) => onMove(member, to)}
              className="w-[108px] text-[12.5px] text-[var(--soft)]"
            />
          </Member>
        );
      })}
    </ul>
  );
}

function freeNumber(groups: readonly AwardGroup[]): string {
  for (let number = groups.length + 1; ; number++) if (!groups.some((it) => it.line === String(number))) return String(number);
}

function Amount({ children }: { children: React.ReactNode }) {
  return <td className="num pt-[7px] align-top">{children}</td>;
}

function Group({ id, children }: { id: string; children: React.ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id });
  return (
    <tr ref={setNodeRef} className={isOver ? 'outline outline-2 -outline-offset-2 outline-[var(--accent)]' : ''}>
      {children}
    </tr>
  );
}

function Member({ id, text, net, children }: { id: string; text: string; net: string; children: React.ReactNode }) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id });
  return (
    <li
      ref={setNodeRef}
      className={`relative flex items-center gap-2 text-[13px] ${isDragging ? 'z-10 bg-[var(--accent-soft)]' : ''}`}
      style={{ transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined }}
    >
      <button
        type="button"
        className="button bare h-[22px] cursor-grab px-1 text-[var(--soft)]"
        {...listeners}
        {...attributes}
        aria-label={`Drag estimate line ${id}`}
      >
        ⠿
      </button>
      <span className="truncate grow">{text}</span>
      <span className="note">{net}</span>
      {children}
    </li>
  );
}
