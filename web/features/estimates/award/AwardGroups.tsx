import { present } from '../../../../core/errors/known';
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

/** The SOV lines to be, each with the estimate lines that go into it; a line is dragged, or sent by its list, to another. */
export function AwardGroups({ groups, plan, lines, priced, weighed, onGroups }: GroupsProps) {
  const { show, code } = useCurrency();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }), useSensor(KeyboardSensor));
  const planned = new Map(plan.sov.map((it) => [it.line, it]));
  const move = (member: string, to: string) => {
    const next = groups.map((it) => ({ ...it, members: it.members.filter((own) => own !== member) }));
    const line = present(lines.find((it) => it.line === member));
    const order = (members: readonly string[]) => lines.map((it) => it.line).filter((it) => members.includes(it));
    if (to === NEW) {
      next.push({
        line: freeNumber(groups),
        section: line.section,
        description: line.description,
        members: [member],
        weight: null,
      });
      return onGroups(next.filter((it) => it.members.length > 0));
    }
    const target = present(next[Number(to)]);
    target.members = order([...target.members, member]);
    onGroups(next.filter((it) => it.members.length > 0));
  };
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over) return;
    const member = String(active.id);
    const from = groups.findIndex((it) => it.members.includes(member));
    if (String(over.id) !== String(from)) move(member, String(over.id));
  };
  const set = (i: number, more: Partial<AwardGroup>) => onGroups(groups.map((it, k) => (k === i ? { ...it, ...more } : it)));
  const total = (value: (it: AwardPlan['sov'][number]) => number) => show(plan.sov.reduce((sum, it) => sum + value(it), 0));
  return (
    <DndContext sensors={sensors} onDragEnd={drop}>
      <table className="ledger">
        <thead>
          <tr>
            <th style={{ width: 74 }}>SOV line</th>
            <th>Description, and the estimate lines in it</th>
            {weighed && (
              <th className="num" style={{ width: 80 }}>
                Weight
              </th>
            )}
            <th className="num">Cost and markup</th>
            <th className="num">Overhead, profit</th>
            <th className="num">Difference</th>
            <th className="num">Scheduled value, {code}</th>
          </tr>
        </thead>
        <tbody>
          {groups.map((group, i) => {
            const it = planned.get(group.line);
            return (
              <Group key={i} id={String(i)}>
                <td style={{ verticalAlign: 'top', paddingTop: 4 }}>
                  <input
                    className="box"
                    style={{ height: 25 }}
                    aria-label={`Number of SOV line ${group.line}`}
                    value={group.line}
                    onChange={(event) => set(i, { line: event.target.value })}
                  />
                </td>
                <td style={{ paddingTop: 4, paddingBottom: 4 }}>
                  <input
                    className="box"
                    style={{ height: 25 }}
                    aria-label={`Description of SOV line ${group.line}`}
                    value={group.description}
                    onChange={(event) => set(i, { description: event.target.value })}
                  />
                  <ul className="m-0 list-none p-0">
                    {group.members.map((member) => {
                      const at = lines.findIndex((line) => line.line === member);
                      return (
                        <Member
                          key={member}
                          id={member}
                          text={`${member} ${present(lines[at]).description}`}
                          net={show(present(priced[at]).net)}
                        >
                          <select
                            aria-label={`SOV line of estimate line ${member}`}
                            value={i}
                            onChange={(event) => move(member, event.target.value)}
                            className="bg-transparent text-[12.5px]"
                            style={{ color: 'var(--soft)', width: 74 }}
                          >
                            {groups.map((to, k) => (
                              <option key={k} value={k}>
                                in {to.line}
                              </option>
                            ))}
                            <option value={NEW}>in a new line</option>
                          </select>
                        </Member>
                      );
                    })}
                  </ul>
                </td>
                {weighed && (
                  <td style={{ verticalAlign: 'top', paddingTop: 4 }}>
                    <input
                      className="box"
                      style={{ height: 25, textAlign: 'right' }}
                      aria-label={`Weight of SOV line ${group.line}`}
                      value={group.weight ?? ''}
                      onChange={(event) =>
                        set(i, { weight: /^\d{1,9}$/.test(event.target.value) ? Number(event.target.value) : null })
                      }
                    />
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
          })}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={weighed ? 3 : 2}>Contract sum, {code}</td>
            <td className="num">{total((it) => it.net)}</td>
            <td className="num">{total((it) => it.spread)}</td>
            <td className="num">{total((it) => it.difference)}</td>
            <td className="num">{total((it) => it.scheduledValue)}</td>
          </tr>
        </tfoot>
      </table>
    </DndContext>
  );
}

function freeNumber(groups: readonly AwardGroup[]): string {
  for (let number = groups.length + 1; ; number++) if (!groups.some((it) => it.line === String(number))) return String(number);
}

function Amount({ children }: { children: React.ReactNode }) {
  return (
    <td className="num" style={{ verticalAlign: 'top', paddingTop: 7 }}>
      {children}
    </td>
  );
}

function Group({ id, children }: { id: string; children: React.ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id });
  return (
    <tr ref={setNodeRef} style={isOver ? { outline: '2px solid var(--accent)', outlineOffset: -2 } : undefined}>
      {children}
    </tr>
  );
}

function Member({ id, text, net, children }: { id: string; text: string; net: string; children: React.ReactNode }) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id });
  return (
    <li
      ref={setNodeRef}
      className="flex items-center gap-2 text-[13px]"
      style={{
        transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
        position: 'relative',
        zIndex: isDragging ? 10 : undefined,
        background: isDragging ? 'var(--accent-soft)' : undefined,
      }}
    >
      <button
        type="button"
        className="button bare"
        style={{ height: 22, padding: '0 4px', cursor: 'grab', color: 'var(--soft)' }}
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
